/** A file input that hears of the same file again: whoever mended it and chooses it once more is answered anew. */
export function FileInput({
  onFiles,
  ...input
}: Omit<React.ComponentProps<'input'>, 'type' | 'onChange' | 'value'> & {
  onFiles: (files: File[]) => void
}) {
  return (
    <input
      {...input}
      type="file"
      onChange={(e) => {
        const files = Array.from(e.target.files ?? [])
        // The list is the input's own: it is emptied with it.
        e.target.value = ''
        if (files.length > 0) onFiles(files)
      }}
    />
  )
}

import './frame.css'

/** A page of its own, outside the frame. */
export function Whole({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <main className="whole">
      <h1>{title}</h1>
      <div className="stack">{children}</div>
    </main>
  )
}

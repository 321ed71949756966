import { useState } from 'react'

/** What a form began with, to be told as seen: the form is not filled in anew though its screen is read anew beside it. */
export const useBegunWith = <Thing>(thing: Thing): Thing => useState(() => thing)[0]

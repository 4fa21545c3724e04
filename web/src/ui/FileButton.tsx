/** A button that asks for a file. */
import { useRef } from 'react'

import { Button } from './parts'

export function FileButton({
  message,
  name,
  accept,
  disabled = false,
  onFile,
}: {
  message: string
  /** What the file is, for a screen reader. */
  name: string
  accept: string
  disabled?: boolean
  onFile: (file: File) => void
}) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={name}
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = '' // the same file may be chosen again
          if (file) onFile(file)
        }}
      />
      <Button plain className="my-1" disabled={disabled} onClick={() => input.current?.click()}>
        {message}
      </Button>
    </>
  )
}

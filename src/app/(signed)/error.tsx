'use client'

/** What is shown when a page cannot be read: mostly that the database is away. */
export default function Failed({ reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <main className="p-8">
      <h1>This page could not be read</h1>
      <p className="sentence">
        The records did not answer. Nothing is lost, and what runs goes on as soon as they are back.
      </p>
      <button type="button" className="button" onClick={() => reset()}>
        Read it again
      </button>
    </main>
  )
}

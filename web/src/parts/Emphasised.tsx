/** Words between stars stand in italics. */
export function Emphasised({ text }: { text: string }) {
  return (
    <>
      {text.split('*').map((t, i) =>
        i % 2 === 1 ? (
          <em key={i} className="name">
            {t}
          </em>
        ) : (
          t
        ),
      )}
    </>
  )
}

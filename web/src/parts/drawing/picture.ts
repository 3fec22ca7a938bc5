/** Turns the picture at a URL into a PNG and hands it out as a download. */
export async function savePicture(url: string, name: string): Promise<void> {
  const text = await (await fetch(url)).text()
  // As data, since the page lets in no other pictures than its own and these.
  const source = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`
  const image = new Image()
  await new Promise<void>((done, fail) => {
    image.onload = () => done()
    image.onerror = () => fail(new Error('the picture can not be drawn'))
    image.src = source
  })
  const canvas = document.createElement('canvas')
  canvas.width = image.width * 2
  canvas.height = image.height * 2
  const ctx = canvas.getContext('2d')
  if (!ctx) throw new Error('the picture can not be drawn')
  ctx.drawImage(image, 0, 0, canvas.width, canvas.height)
  const a = document.createElement('a')
  a.href = canvas.toDataURL('image/png')
  a.download = name
  a.click()
}

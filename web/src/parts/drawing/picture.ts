/** Turns the picture at a URL into a PNG and hands it out as a download. */
export async function savePicture(url: string): Promise<void> {
  const text = await (await fetch(url)).text()
  const source = URL.createObjectURL(new Blob([text], { type: 'image/svg+xml' }))
  try {
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
    a.download = 'dependencies.png'
    a.click()
  } finally {
    URL.revokeObjectURL(source)
  }
}

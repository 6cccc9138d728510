/* A drawing as the contents of a file. */
import { picture } from './picture'

/** How many dots of an image stand for one of the screen. */
const fine = 2

export async function asSVG(root: Element): Promise<Blob> {
  return new Blob([(await picture(root)).svg], { type: 'image/svg+xml' })
}

export async function asPNG(root: Element): Promise<Blob> {
  const { svg, width, height } = await picture(root)
  const image = new Image()
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  try {
    image.src = url
    await image.decode()
    const canvas = Object.assign(document.createElement('canvas'), { width: width * fine, height: height * fine })
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
    return await new Promise((done, fail) =>
      canvas.toBlob(
        (b) => (b ? done(b) : fail(new Error('the image is larger than the browser can make'))),
        'image/png',
      ),
    )
  } finally {
    URL.revokeObjectURL(url)
  }
}

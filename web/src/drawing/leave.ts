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

/** Prints it alone, as wide as the paper. */
export async function onPaper(root: Element) {
  const { svg, width, height } = await picture(root)
  const frame = document.createElement('iframe')
  frame.style.cssText = 'position:fixed;inset:auto;width:0;height:0;border:0'
  frame.srcdoc = `<style>@page{size:${width > height ? 'landscape' : 'portrait'};margin:12mm}body{margin:0}svg{width:100%;height:auto}</style>${svg}`
  await new Promise((done) => {
    frame.onload = done
    document.body.append(frame)
  })
  const paper = frame.contentWindow!
  paper.onafterprint = () => frame.remove()
  paper.print()
}

/** A photo made small before it is kept: nothing of where it was taken goes along, since it is drawn anew. */
export interface PhotoSent {
  base64: string
}

/** Longest side, px: enough to see mould by. */
const LONGEST = 1600
/** No photo is sent larger, bytes. */
const LARGEST = 700_000
const QUALITIES = [0.82, 0.7, 0.55, 0.4]

/** What a picture is drawn as: the longest side fits, the shape stays. */
export function fitted(width: number, height: number, longest = LONGEST): { width: number; height: number } {
  const by = Math.min(1, longest / Math.max(width, height))
  return { width: Math.max(1, Math.round(width * by)), height: Math.max(1, Math.round(height * by)) }
}

/** A picture that a person chose, made small; none if it is none. */
export async function shrunk(file: File): Promise<PhotoSent | null> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null)
  if (!bitmap) return null
  for (const longest of [LONGEST, LONGEST / 2]) {
    const size = fitted(bitmap.width, bitmap.height, longest)
    const canvas = Object.assign(document.createElement('canvas'), size)
    canvas.getContext('2d')?.drawImage(bitmap, 0, 0, size.width, size.height)
    for (const quality of QUALITIES) {
      const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', quality))
      if (blob && blob.size <= LARGEST) return { base64: await base64Of(blob) }
    }
  }
  return null
}

function base64Of(blob: Blob): Promise<string> {
  return new Promise((done, failed) => {
    const reader = new FileReader()
    reader.onload = () => done((reader.result as string).split(',')[1] ?? '')
    reader.onerror = () => failed(reader.error ?? new Error('unread'))
    reader.readAsDataURL(blob)
  })
}

import { t } from '../../shared/texts';

/** An SVG of the server as a PNG so many pixels wide. */
export async function asPng(address: string, width: number): Promise<Blob> {
  const reply = await fetch(address);
  if (!reply.ok) throw new Error(t('HTTP status {status}', { status: reply.status }));
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(await reply.text())}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = Math.round((width * image.naturalHeight) / image.naturalWidth);
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => {
      if (blob) resolve(blob);
      else reject(new Error(t('no picture')));
    }, 'image/png');
  });
}

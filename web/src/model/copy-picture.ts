/** The model view as a picture. */
import type { RootState } from '@react-three/fiber';
import { complain, notify } from '../common/notices.tsx';
import { bySoftware, fine } from './Pace.tsx';

/** Puts the view on the clipboard as a picture, or where that is not allowed into a file. */
export async function copyPicture({ gl, scene, get }: RootState, name: string): Promise<void> {
  if (bySoftware()) gl.setPixelRatio(fine);
  gl.render(scene, get().camera);
  const picture = await new Promise<Blob | null>((done) => gl.domElement.toBlob(done, 'image/png'));
  if (!picture)
    return complain(
      'The view could not be copied',
      'The browser gave no picture of it. Try again, or enlarge the model first.',
    );
  try {
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': picture })]);
    notify('The view is on the clipboard, as PNG');
  } catch {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(picture);
    link.download = `${name}.png`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 1000);
    notify('The clipboard was not to be had; the view is saved as a PNG file');
  }
}

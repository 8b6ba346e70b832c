import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { useGarden } from '../../../data/gardenContext.ts';
import { readPhoto } from '../../../data/photos.ts';
import { database } from '../../../data/services.ts';
import { Dialog } from '../../../ui/Dialog.tsx';

/** The page's policy lets pictures in as data, not as blobs. */
const dataUrl = (bytes: Uint8Array<ArrayBuffer>): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(typeof reader.result === 'string' ? reader.result : '');
    reader.onerror = () => reject(new Error('the picture cannot be read'));
    reader.readAsDataURL(new Blob([bytes], { type: 'image/jpeg' }));
  });

/** A photo of the log, small; pressed it is shown whole. @param text what was written beside it */
export function Photo({ id, text }: { id: string; text: string }) {
  const { garden } = useGarden();
  const [open, setOpen] = useState(false);
  const { data, isPending } = useQuery({
    queryKey: ['photo', garden.id, id],
    queryFn: async () => {
      const bytes = await readPhoto(await database(), garden.id, id);
      return bytes ? dataUrl(bytes) : null;
    },
    staleTime: Infinity,
    gcTime: 10_000,
  });
  if (!data)
    return (
      <span className="text-soft">
        {isPending ? 'The photo is being read … ' : 'The photo is not in this browser. '}
      </span>
    );
  const alt = text === '' ? 'Photo, without words' : `Photo: ${text}`;
  return (
    <>
      <button type="button" className="press mr-3 inline-block align-top" onClick={() => setOpen(true)}>
        <img src={data} alt={alt} className="h-[72px] w-auto max-w-none border border-ink" />
      </button>
      {open && (
        <Dialog open wide onClose={() => setOpen(false)} title="Photo" description={text}>
          <img src={data} alt={alt} className="max-h-[70dvh] w-auto max-w-full" />
          <p className="mt-3">
            <a href={data} download={`photo-${id}.jpg`} className="press underline">
              Save it as a file
            </a>
          </p>
        </Dialog>
      )}
    </>
  );
}

import { lazy, Suspense, useRef } from 'react';
import { Link, useNavigate } from 'react-router';
import { useOpenGardenFile } from './useOpenGardenFile.ts';
import { FileInput } from '../ui/FileInput.tsx';

// What reads gardens and shows messages comes after the three choices can be pressed.
const GardenList = lazy(() => import('./GardenList.tsx'));
const GatewayGardens = lazy(() => import('./GatewayGardens.tsx'));
const Toasts = lazy(async () => ({ default: (await import('../ui/Toasts.tsx')).Toasts }));

/** A choice as a plant label lying on its side, with what happens when it is taken. */
function ChoiceLabel({
  title,
  text,
  onTake,
  to,
}: {
  title: string;
  text: string;
  onTake?: () => void;
  to?: string;
}) {
  const inside = (
    <>
      <svg aria-hidden viewBox="0 0 600 92" preserveAspectRatio="none" className="absolute inset-0 size-full">
        <path
          d="M1 1H556L598 46 556 91H1Z"
          vectorEffect="non-scaling-stroke"
          className="fill-label stroke-ink group-hover:fill-paper-2"
        />
      </svg>
      <span className="relative flex min-h-[92px] flex-col justify-center py-4 pr-16 pl-6 text-left">
        <b className="block text-[19px] leading-tight font-semibold">{title}</b>
        <span className="mt-1 block text-soft">{text}</span>
      </span>
    </>
  );
  const look = 'group relative block w-full min-h-[92px]';
  return to === undefined ? (
    <button type="button" onClick={onTake} className={look}>
      {inside}
    </button>
  ) : (
    <Link to={to} className={look}>
      {inside}
    </Link>
  );
}

/** Where one begins: three choices, and the gardens kept in this browser when there are any. */
export function Home() {
  const fileInput = useRef<HTMLInputElement>(null);
  const openFile = useOpenGardenFile();
  const navigate = useNavigate();
  return (
    <main className="mx-auto flex min-h-dvh w-full max-w-[680px] flex-col justify-center gap-8 px-5 py-10">
      <header>
        <h1 className="text-[34px]">Plain Trowel</h1>
        <p className="mt-1 text-[17px] text-soft">
          Read a soil probe, find out what its numbers mean, and let a lamp or a pump answer.
        </p>
      </header>
      <section aria-label="Begin" className="flex flex-col gap-4">
        <ChoiceLabel
          title="Open the sample garden"
          text="The Marigold Hare: four plots on a narrowboat, with boards that run here in the page. Nothing to wire."
          onTake={() => void navigate('/sample')}
        />
        <ChoiceLabel
          title="Start my own garden"
          text="Name it and its plots. Board and probes you have already, or choose with Plan."
          to="/new"
        />
        <ChoiceLabel
          title="Open a file"
          text="A backup (zip) or a garden.json that was saved here or on another machine."
          onTake={() => fileInput.current?.click()}
        />
        <FileInput
          ref={fileInput}
          label="Garden file"
          accept=".json,.zip,application/json,application/zip"
          onFile={(file) => openFile(file)}
        />
      </section>
      <Suspense>
        <GardenList />
      </Suspense>
      <Suspense>
        <GatewayGardens />
      </Suspense>
      <p className="text-[13.5px] text-soft">
        Everything stays in this browser and in the files you export; what you publish lies at your own
        gateway as well.
      </p>
      <Suspense>
        <Toasts />
      </Suspense>
    </main>
  );
}

import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { Toasts } from '../ui/Toasts.tsx';
import { Notice } from './Notice.tsx';
import { MendView } from './mend/MendView.tsx';
import { keepGarden } from './openFiles.ts';
import { useOpening } from './openingState.ts';

/** A garden file that does not open, to be mended here before it is kept. */
export default function MendFile() {
  const opening = useOpening();
  const client = useQueryClient();
  const navigate = useNavigate();
  if (opening.kind !== 'mend')
    return (
      <Notice
        title="No file is open here"
        text="Choose the file again on the first page; it was not kept when the page was loaded."
      />
    );
  return (
    <Notice
      title={`${opening.fileName} does not open`}
      text="Some of its fields do not fit. Mend them here; nothing is kept before the whole of it opens, and the gardens in this browser are as they were."
    >
      <MendView
        doc={opening.doc}
        fileName={opening.fileName.replace(/\.(json|zip)$/i, '.mended.json')}
        onMended={(garden) => keepGarden(garden, { client, goTo: async (path) => navigate(path) })}
      />
      <Toasts />
    </Notice>
  );
}

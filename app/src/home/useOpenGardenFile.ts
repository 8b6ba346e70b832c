import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';

/** Opens a garden file or a backup. What reads it is fetched when a file is chosen: the first screen must not wait for it. */
export function useOpenGardenFile(): (file: File) => void {
  const client = useQueryClient();
  const navigate = useNavigate();
  return (file) => {
    void import('./openFiles.ts').then(({ openFile }) =>
      openFile(file, { client, goTo: async (path) => navigate(path) }),
    );
  };
}

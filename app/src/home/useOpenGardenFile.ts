import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';

/** Opens a garden file. What reads it is fetched when a file is chosen: the first screen must not wait for it. */
export function useOpenGardenFile(): (file: File) => void {
  const client = useQueryClient();
  const navigate = useNavigate();
  return (file) => {
    void import('./openGardenFile.ts').then(({ openGardenFile }) =>
      openGardenFile(file, client, async (path) => navigate(path)),
    );
  };
}

'use client';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { readExported } from '@/contract/exports';
import { address } from '@/contract/route';
import { tell, tellFault } from '../shell/notices-store';
import { useEditorStore } from './store';

/** Fetches a finished export as a file. */
function download(id: string): void {
  const link = document.createElement('a');
  link.href = address(readExported, { id }, { download: '' });
  link.download = '';
  link.click();
}

/** Says when an export of the open project is done or has failed, wherever one is by then. */
export function useExportNews(): void {
  const store = useEditorStore();
  const router = useRouter();
  useEffect(
    () =>
      store.subscribe(({ exports, id }, before) => {
        if (exports === before.exports) return;
        for (const item of exports) {
          const was = before.exports.find((e) => e.id === item.id)?.status;
          if (was !== 'running' && was !== 'queued') continue;
          if (item.status === 'failed') tellFault(`${item.name}: ${item.message}`);
          if (item.status === 'done')
            tell(
              `${item.name} is exported.`,
              { label: 'Look at it', run: () => router.push(`/projects/${id}/publish`) },
              { label: 'Download', run: () => download(item.id) },
            );
        }
      }),
    [store, router],
  );
}

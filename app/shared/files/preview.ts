import { lazy } from 'react';

/** What shows a file; it brings along what draws pages, which is large, so it is loaded when a file is looked at. */
export const FilePreview = lazy(async () => ({ default: (await import('./FilePreview.tsx')).FilePreview }));

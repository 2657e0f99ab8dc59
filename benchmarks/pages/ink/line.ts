/** A bare line of a private file: written, and answered. */
const file = (async () => {
  const folder = await navigator.storage.getDirectory();
  return (await folder.getFileHandle('bare', { create: true })).createSyncAccessHandle();
})();
const encoder = new TextEncoder();

onmessage = async ({ data }: MessageEvent<string>) => {
  const open = await file;
  open.write(encoder.encode(data), { at: open.getSize() });
  postMessage(true);
};

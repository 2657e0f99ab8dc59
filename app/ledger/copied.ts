/** The folder of the second copy. */
export const FOLDER = 'copy';

/** Whether there is a second copy: its folder is looked for here, for a first start would wait long for the worker. */
export const isCopied = (folder = FOLDER): Promise<boolean> =>
  Promise.resolve()
    .then(() => navigator.storage.getDirectory())
    .then((all) => all.getDirectoryHandle(folder))
    .then(
      () => true,
      () => false,
    );

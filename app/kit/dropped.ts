import { shallowRef } from 'vue';

/** A file that was dropped onto the window, until the sheet that reads files has taken it. */
export const dropped = shallowRef<File>();

/** Whether something that is dragged over the window is a file. */
export const isFile = ({ dataTransfer }: DragEvent): boolean => dataTransfer?.types.includes('Files') ?? false;

/** The first and the last moment that is kept, epoch milliseconds: 1970, and the end of 2199. */
export const MOMENTS = { least: 0, most: Date.UTC(2200, 0, 1) - 1 };
/** The longest that is kept from plug-in on, in seconds: as long as moments reach. */
export const LONGEST_RUN = MOMENTS.most / 1000;

/** What an id is made of: it stands in addresses and in keys, so nothing else may be in it. Apart from the schemas, for the start goes without them. */
export const ID = /^(?!__proto__$)[\w-]{1,40}$/;

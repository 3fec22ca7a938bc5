/** Whether a path is a place or lies below it. */
export const within = (place: string, path: string) => place === '.' || path === place || path.startsWith(`${place}/`)

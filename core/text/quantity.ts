/** Words for how many: "1 group", "12 groups". */
export const quantity = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

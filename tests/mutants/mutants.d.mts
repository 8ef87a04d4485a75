export declare const mutants: readonly { readonly file: string; readonly from: string; readonly to: string; readonly test: string }[]

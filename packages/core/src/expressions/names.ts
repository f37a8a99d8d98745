import { formulas } from '../formulas/index.ts';

/** Unit names that may follow a number. */
export const unitNameList = [
  'm', 'cm', 'mm', 'um', 'nm', 'km', 'mil', 'inch', 'Hz', 'kHz', 'MHz', 'GHz', 'THz', 's', 'ms', 'us', 'ns', 'ps', 'fs', 'deg', 'rad', 'ohm', 'kohm', 'Mohm',
  'S', 'mS', 'kS', 'MS', 'V', 'mV', 'kV', 'A', 'mA', 'W', 'mW', 'kW', 'F', 'uF', 'nF', 'pF', 'fF', 'H', 'uH', 'nH', 'pH',
] as const; // prettier-ignore

/** Names of physical and mathematical constants. */
export const constantNames = ['pi', 'e', 'c0', 'eps0', 'mu0', 'eta0'] as const;

/** Arithmetic functions that an expression may call; all take and give scalars in bounded time. */
export const arithmeticNames = [
  'sqrt', 'abs', 'sin', 'cos', 'tan', 'asin', 'acos', 'atan', 'atan2', 'sinh', 'cosh', 'tanh', 'exp', 'log', 'log10', 'log2', 'min', 'max', 'floor', 'ceil', 'round', 'sign', 'hypot',
] as const; // prettier-ignore

/** Functions that point at geometry: edge(face, face) and corner(face, face, face). */
export const geometryNames = ['edge', 'corner'] as const;

/** All functions. */
export const functionNames: readonly string[] = [...arithmeticNames, ...geometryNames, ...formulas.map((f) => f.name)];

/** Names that a parameter cannot take. */
export const reservedNames: ReadonlySet<string> = new Set<string>([...unitNameList, ...constantNames, ...functionNames]);

/** Words that expressions use for parts of a body; a line cannot have them for a name. */
export const faceWords =
  /^(x|y|z|min|max|centre|size|area|volume|length|start|end|middle|normal|origin|top|bottom|side\d*|bore|surface|face|[xyz](min|max)|p\d+)$/;

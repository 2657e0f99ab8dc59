export { verdict } from './verdict';
export { CAUTIONS } from './cautions';

export { namesOf, unfairness, verdict } from './verdict';
export { CAUTIONS } from './cautions';

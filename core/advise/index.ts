export { CAUTIONS } from './cautions';
export { judge } from './judge';
export { groupsOf, usualWindow, USUAL_WISHES, WISHES, type Finding, type Question, type Shelf, type Wishes } from './question';
export { worthOf } from './worth';
export { balanceOf } from './balance';
export { type Plotted } from './frontier';
export { oneForAll, type OneForAll } from './oneForAll';
export { leadOf } from './lead';
export { verdict } from './verdict';

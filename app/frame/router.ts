import { createRouter, createWebHistory, type RouteLocation } from 'vue-router';
import { report } from '../kit/failures';
import { titledAs } from '../kit/pageTitle';
import { logbookKind } from '../logbook/kind';
import RunView from '../run/RunView.vue';

/** What the demo opens on: a comparison, for that is what the work is done for. */
const DEMO_OPENS = `/compare?runs=${[1, 2, 3, 4, 5, 6, 9].map((run) => `saltmarsh-${run}`).join('.')}`;

/** An address as it is called now, with all that stands behind it. */
const movedTo = (old: string, now: string) => (to: RouteLocation) => to.fullPath.replace(old, now);

/** A room is loaded when it is first entered; the run board, which must be there at once, with the program. */
export function createRoutes() {
  const router = createRouter({
    history: createWebHistory(),
    routes: [
      { path: '/', redirect: () => (logbookKind() === 'demo' ? DEMO_OPENS : '/live') },
      { path: '/bench', component: () => import('../bench/BenchView.vue'), meta: { title: 'Bench' } },
      { path: '/bench/expect', component: () => import('../bench/ExpectView.vue'), meta: { title: 'What to expect' } },
      { path: '/plan', component: () => import('../plan/PlanView.vue'), meta: { title: 'Plan' } },
      { path: '/plan/:id', component: () => import('../plan/StudyView.vue'), props: true },
      { path: '/plan/:id/calendar', component: () => import('../plan/CalendarView.vue'), props: true },
      { path: '/live', component: RunView, meta: { title: 'Live' } },
      { path: '/live/new', component: () => import('../run/StartView.vue'), meta: { title: 'Start a run' } },
      { path: '/live/footage', component: () => import('../run/FootageView.vue'), meta: { title: 'From footage' } },
      { path: '/live/paper', component: () => import('../run/PaperView.vue'), meta: { title: 'From paper' } },
      { path: '/live/spot', component: () => import('../run/SpotView.vue'), meta: { title: 'Spot check' } },
      { path: '/live/spot/:id', component: () => import('../run/SittingView.vue'), props: true },
      { path: '/live/rehearse', component: () => import('../run/RehearseView.vue'), meta: { title: 'Rehearsal' } },
      { path: '/runs', component: () => import('../curve/RunsView.vue'), meta: { title: 'Runs' } },
      { path: '/runs/:id', component: () => import('../curve/CurveView.vue'), props: true },
      { path: '/compare', component: () => import('../compare/CompareView.vue'), meta: { title: 'Compare' } },
      { path: '/pieces', component: () => import('../pieces/PiecesView.vue'), meta: { title: 'Pieces' } },
      { path: '/pieces/:id', component: () => import('../pieces/PieceView.vue'), props: true },
      { path: '/sums', component: () => import('../sums/SumsView.vue'), meta: { title: 'Sums' } },
      { path: '/settings', component: () => import('./SettingsView.vue'), meta: { title: 'Settings' } },
      { path: '/help', component: () => import('./HelpView.vue'), meta: { title: 'Help' } },
      // As they were called before.
      ...['', '/new', '/footage', '/paper', '/spot', '/spot/:id', '/rehearse'].map((path) => ({
        path: `/run${path}`,
        redirect: movedTo('/run', '/live'),
      })),
      ...['', '/:id'].map((path) => ({ path: `/curve${path}`, redirect: movedTo('/curve', '/runs') })),
      { path: '/:anything(.*)*', component: () => import('./LostView.vue'), meta: { title: 'Nothing here' } },
    ],
  });
  router.afterEach(({ meta }) => titledAs(typeof meta.title === 'string' ? meta.title : ''));
  // A room that could not be fetched: the server is down, and nothing was kept for offline use.
  router.onError((error: unknown) => {
    const isFetch = error instanceof Error && /import|fetch|preload/i.test(error.message);
    report(
      isFetch ? new Error('This page could not be fetched: the server does not answer. Start it again; what is open goes on.') : error,
    );
  });
  return router;
}

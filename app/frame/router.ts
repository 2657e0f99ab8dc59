import { createRouter, createWebHistory } from 'vue-router';
import { report } from '../kit/failures';
import RunView from '../run/RunView.vue';

/** A room is loaded when it is first entered; the run board, which must be there at once, with the program. */
export function createRoutes() {
  const router = createRouter({
    history: createWebHistory(),
    routes: [
      { path: '/', redirect: '/run' },
      { path: '/bench', component: () => import('../bench/BenchView.vue') },
      { path: '/bench/expect', component: () => import('../bench/ExpectView.vue') },
      { path: '/plan', component: () => import('../plan/PlanView.vue') },
      { path: '/plan/:id', component: () => import('../plan/StudyView.vue'), props: true },
      { path: '/plan/:id/calendar', component: () => import('../plan/CalendarView.vue'), props: true },
      { path: '/run', component: RunView },
      { path: '/run/new', component: () => import('../run/StartView.vue') },
      { path: '/run/footage', component: () => import('../run/FootageView.vue') },
      { path: '/run/paper', component: () => import('../run/PaperView.vue') },
      { path: '/run/spot', component: () => import('../run/SpotView.vue') },
      { path: '/run/spot/:id', component: () => import('../run/SittingView.vue'), props: true },
      { path: '/run/rehearse', component: () => import('../run/RehearseView.vue') },
      { path: '/curve', component: () => import('../curve/RunsView.vue') },
      { path: '/curve/:id', component: () => import('../curve/CurveView.vue'), props: true },
      { path: '/compare', component: () => import('../compare/CompareView.vue') },
      { path: '/sums', component: () => import('../sums/SumsView.vue') },
      { path: '/settings', component: () => import('./SettingsView.vue') },
      { path: '/help', component: () => import('./HelpView.vue') },
      { path: '/:anything(.*)*', component: () => import('./LostView.vue') },
    ],
  });
  // A room that could not be fetched: the server is down, and nothing was kept for offline use.
  router.onError((error: unknown) => {
    const isFetch = error instanceof Error && /import|fetch|preload/i.test(error.message);
    report(
      isFetch ? new Error('This page could not be fetched: the server does not answer. Start it again; what is open goes on.') : error,
    );
  });
  return router;
}

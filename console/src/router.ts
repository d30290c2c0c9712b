import { createRouter, createWebHistory } from 'vue-router'
import AccountPage from './pages/AccountPage.vue'
import CallsPage from './pages/CallsPage.vue'
import ChangesPage from './pages/ChangesPage.vue'
import CommitPage from './pages/CommitPage.vue'
import CommitsPage from './pages/CommitsPage.vue'
import CredentialsPage from './pages/CredentialsPage.vue'
import DevicePage from './pages/DevicePage.vue'
import DiffPage from './pages/DiffPage.vue'
import FilePage from './pages/FilePage.vue'
import FilesPage from './pages/FilesPage.vue'
import FirstPage from './pages/FirstPage.vue'
import HealthPage from './pages/HealthPage.vue'
import MachinesPage from './pages/MachinesPage.vue'
import LearnPage from './pages/LearnPage.vue'
import LogPage from './pages/LogPage.vue'
import MissingPage from './pages/MissingPage.vue'
import PeoplePage from './pages/PeoplePage.vue'
import PlacesPage from './pages/PlacesPage.vue'
import ReplacePage from './pages/ReplacePage.vue'
import RepositoriesPage from './pages/RepositoriesPage.vue'
import RostersPage from './pages/RostersPage.vue'
import SearchPage from './pages/SearchPage.vue'
import SettingsPage from './pages/SettingsPage.vue'
import SignInPage from './pages/SignInPage.vue'
import SavedSearchPage from './pages/SavedSearchPage.vue'
import SetsPage from './pages/SetsPage.vue'
import SymbolsPage from './pages/SymbolsPage.vue'
import TreePage from './pages/TreePage.vue'
import TypesPage from './pages/TypesPage.vue'
import WorklistPage from './pages/WorklistPage.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'search', component: SearchPage },
    { path: '/file', name: 'file', component: FilePage },
    { path: '/files', name: 'files', component: FilesPage },
    { path: '/symbols', name: 'symbols', component: SymbolsPage },
    { path: '/calls', name: 'calls', component: CallsPage },
    { path: '/commits', name: 'commits', component: CommitsPage },
    { path: '/commit', name: 'commit', component: CommitPage },
    { path: '/log', name: 'log', component: LogPage },
    { path: '/diff', name: 'diff', component: DiffPage },
    { path: '/tree', name: 'tree', component: TreePage },
    { path: '/places', name: 'places', component: PlacesPage },
    { path: '/repositories', name: 'repositories', component: RepositoriesPage },
    { path: '/saved', name: 'saved', component: SavedSearchPage },
    { path: '/worklist', name: 'worklist', component: WorklistPage },
    { path: '/replace', name: 'replace', component: ReplacePage },
    { path: '/sets', name: 'sets', component: SetsPage },
    { path: '/types', name: 'types', component: TypesPage },
    { path: '/learn', name: 'learn', component: LearnPage },
    { path: '/settings', name: 'settings', component: SettingsPage },
    { path: '/account', name: 'account', component: AccountPage },
    { path: '/people', name: 'people', component: PeoplePage },
    { path: '/changes', name: 'changes', component: ChangesPage },
    { path: '/credentials', name: 'credentials', component: CredentialsPage },
    { path: '/rosters', name: 'rosters', component: RostersPage },
    { path: '/health', name: 'health', component: HealthPage },
    { path: '/machines', name: 'machines', component: MachinesPage },
    { path: '/device', name: 'device', component: DevicePage },
    { path: '/sign-in', name: 'sign-in', component: SignInPage },
    { path: '/first', name: 'first', component: FirstPage },
    { path: '/:rest(.*)*', name: 'missing', component: MissingPage },
  ],
  // The search page stays alive behind the others, so back finds the list as it was, at the spot it was.
  scrollBehavior: (to, from, saved) => saved ?? (to.name === from.name ? undefined : { top: 0 }),
})

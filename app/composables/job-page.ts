/**
 * Opens the job of the address for one of its views: why it cannot be shown, whether it is loaded, and the keys that
 * all its views share.
 */
export function useJobPage(title: string, keys: Readonly<Record<string, () => void>> = {}) {
  const route = useRoute()
  const bench = useJob()
  const judging = useJudging()
  const view = useView()
  const opening = ref<string | null>(null)
  const id = computed(() => String(route.params.id))
  const ready = computed(
    () => bench.id === id.value && bench.document !== null && judging.assessment !== null,
  )
  /** Why there is nothing to show: it could not be opened, or not be checked at all. */
  const problem = computed(
    () =>
      opening.value ?? (judging.assessment === null && judging.aheadProblem ? judging.aheadProblem : null),
  )
  useHead({
    title: () =>
      bench.document
        ? `${title} ${bench.document.job.number} ${bench.document.job.name} · Jovial Anchor`
        : 'Jovial Anchor',
  })
  const together = useTogether()
  watch(
    [id, ready],
    () => {
      together.show(ready.value ? id.value : null, title)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    together.show(null, '')
  })
  // From one view of a job to another it stays as it is on the bench; coming from elsewhere it is fetched
  // again.
  const before = String(useRouter().options.history.state.back ?? '')
  onMounted(async () => {
    if (!ready.value || !before.startsWith(`/jobs/${id.value}`)) opening.value = await bench.open(id.value)
  })
  useKeys({
    ...shopKeys,
    'g b': () => navigateTo(`/jobs/${id.value}`),
    'g w': () => navigateTo(`/jobs/${id.value}/wiring`),
    'g l': () => navigateTo(`/jobs/${id.value}/loads`),
    'g c': () => navigateTo(`/jobs/${id.value}/candidates`),
    'g p': () => navigateTo(`/jobs/${id.value}/specify`),
    'g q': () => navigateTo(`/jobs/${id.value}/quotation`),
    'g v': () => navigateTo(`/jobs/${id.value}/prove`),
    'g u': () => navigateTo(`/jobs/${id.value}/run`),
    'g s': () => navigateTo(`/jobs/${id.value}/papers`),
    'Ctrl+Z': bench.undo,
    'Ctrl+Shift+Z': bench.redo,
    '/': () => {
      view.dialog = 'find'
    },
    '?': () => {
      view.dialog = 'keys'
    },
    ...keys,
  })
  return { bench, problem, id, ready }
}

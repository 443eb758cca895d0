import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type SiteRules } from '@/api/client'
import { key, useChanged } from '@/api/keys'
import { useSite } from '@/farm/useFarm'
import { useAttempt } from '@/kit/useAttempt'
import { useSlip } from '@/kit/useSlip'
import { useSay } from '@/words/useSay'

type Request = Pick<SiteRules, 'version' | 'follows' | 'local'>

/** What the place that is open follows where practitioners differ, and its local rule. */
export function useFollows() {
  const { site } = useSite()
  const { t } = useSay()
  const slip = useSlip()
  const { attempt } = useAttempt()
  const id = computed(() => site.value?.id ?? '')
  const {
    data: rules,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: key('follows', id),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{id}/rules', { params: { path: { id: id.value } }, signal })),
    enabled: computed(() => id.value !== ''),
  })
  const refresh = useChanged('follows')
  const change = useMutation({
    mutationFn: (body: Request) =>
      answered(api.PUT('/api/sites/{id}/rules', { params: { path: { id: id.value } }, body })),
    onSettled: refresh,
  })

  /** Keeps what was chosen; what was followed before is one tap away. */
  async function save(body: Request) {
    const before = rules.value
    const kept = await attempt(() => change.mutateAsync(body))
    if (!kept || !before) return
    slip.said({
      text: t('school.saved'),
      undoLabel: t('app.undo'),
      undo: () =>
        void attempt(() =>
          change.mutateAsync({ ...before, version: rules.value?.version ?? before.version + 1 }),
        ),
    })
  }
  return { site, rules, error, retry, save, isSaving: change.isPending }
}

import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { v7 } from 'uuid'
import {
  answered,
  api,
  type CompostActRequest,
  type CompostTold,
  type GroundFields,
  type GroundTold,
  type HarvestRequest,
  type LabRequest,
  type UseRequest,
} from '@/api/client'
import { key, useChanged } from '@/api/keys'
import { useSite } from '@/farm/useFarm'

/** The compost of the site that is open, taken out last first. */
export function useCompostList() {
  const { site } = useSite()
  const siteId = computed(() => site.value?.id ?? '')
  const { data, error, refetch } = useQuery({
    queryKey: key('compost', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/compost', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
  })
  return { composts: data, error, retry: refetch }
}

/** The places of the site that is open, with what each got. */
export function useGrounds() {
  const { site } = useSite()
  const siteId = computed(() => site.value?.id ?? '')
  const { data, error, refetch } = useQuery({
    queryKey: key('grounds', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/grounds', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
  })
  return { grounds: data, error, retry: refetch }
}

/** What a heap should give. */
export function useOutlook(heap: Ref<string>, enabled: Ref<boolean>) {
  const { data: outlook } = useQuery({
    queryKey: key('outlook', heap),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/heaps/{id}/harvest', { params: { path: { id: heap.value } }, signal })),
    enabled,
    staleTime: 0,
  })
  return { outlook }
}

export type ChainOf = 'lot' | 'compost' | 'ground'

/** What went where, of a lot, some compost or a place. */
export function useChain(of: Ref<ChainOf>, id: Ref<string>) {
  const { data, error, refetch } = useQuery({
    queryKey: key('chain', of, id),
    queryFn: ({ signal }) => {
      const params = { path: { id: id.value } }
      if (of.value === 'lot') return answered(api.GET('/api/lots/{id}/chain', { params, signal }))
      if (of.value === 'ground') return answered(api.GET('/api/grounds/{id}/chain', { params, signal }))
      return answered(api.GET('/api/compost/{id}/chain', { params, signal }))
    },
  })
  return { chain: data, error, retry: refetch }
}

/** Heaps beside each other. */
export function useComparison(heaps: Ref<string[]>) {
  const { data, error, refetch } = useQuery({
    queryKey: key('compare', heaps),
    queryFn: ({ signal }) => answered(api.POST('/api/compare', { body: { heaps: heaps.value }, signal })),
    enabled: computed(() => heaps.value.length > 1),
  })
  return { comparison: data, error, retry: refetch }
}

/** The ways to finish: taking out, using, finding out, and taking back. Each bears an id, so that it may be sent twice. */
export function useFinish() {
  const { site } = useSite()
  const refresh = useChanged('compost', 'ground', 'heap', 'lot')
  /** It is done once the farm says so; what leans on it is asked anew meanwhile. */
  const done = async <T>(sent: Promise<T>): Promise<T> => {
    const answer = await sent
    void refresh()
    return answer
  }
  const of = ({ id }: { id: string }) => ({ path: { id } })
  const at = (id: string, entry: string) => ({ path: { id, entry } })

  return {
    harvest: (heap: { id: string }, body: HarvestRequest) =>
      done(answered(api.POST('/api/heaps/{id}/harvest', { params: of(heap), body: { id: v7(), ...body } }))),
    takeHarvestBack: (compost: { id: string }) =>
      done(answered(api.DELETE('/api/compost/{id}', { params: of(compost) }))),
    happened: (compost: { id: string }, body: CompostActRequest) =>
      done(
        answered(
          api.POST('/api/compost/{id}/amounts', { params: of(compost), body: { entry: v7(), ...body } }),
        ),
      ),
    use: (compost: { id: string }, body: UseRequest) =>
      done(
        answered(api.POST('/api/compost/{id}/uses', { params: of(compost), body: { entry: v7(), ...body } })),
      ),
    found: (compost: { id: string }, body: LabRequest) =>
      done(
        answered(
          api.POST('/api/compost/{id}/results', { params: of(compost), body: { entry: v7(), ...body } }),
        ),
      ),
    foundInSoil: (ground: { id: string }, body: LabRequest) =>
      done(
        answered(
          api.POST('/api/grounds/{id}/results', { params: of(ground), body: { entry: v7(), ...body } }),
        ),
      ),
    takeBack: (compost: Pick<CompostTold, 'id'>, entry: string) =>
      done(answered(api.DELETE('/api/compost/{id}/log/{entry}', { params: at(compost.id, entry) }))),
    takeBackInSoil: (ground: Pick<GroundTold, 'id'>, entry: string) =>
      done(answered(api.DELETE('/api/grounds/{id}/log/{entry}', { params: at(ground.id, entry) }))),
    addGround: (body: GroundFields) => {
      const params = { path: { site: site.value?.id ?? '' }, query: { id: v7() } }
      return done(answered(api.POST('/api/sites/{site}/grounds', { params, body })))
    },
    changeGround: ({ id, version }: GroundTold, ground: GroundFields) =>
      done(answered(api.PUT('/api/grounds/{id}', { params: { path: { id } }, body: { version, ground } }))),
    removeGround: (ground: { id: string }) =>
      done(answered(api.DELETE('/api/grounds/{id}', { params: of(ground) }))),
    restoreGround: (ground: { id: string }) =>
      done(answered(api.POST('/api/grounds/{id}/restore', { params: of(ground) }))),
  }
}

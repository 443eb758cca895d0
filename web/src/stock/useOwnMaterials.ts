import { useMutation } from '@tanstack/vue-query'
import { answered, api, type Material, type MaterialFields } from '@/api/client'
import { useChanged } from '@/api/keys'

/** The ways to add to the materials and change a person's own. */
export function useOwnMaterials() {
  const refresh = useChanged('material')
  const path = (id: string) => ({ params: { path: { id } } })

  const create = useMutation({
    mutationFn: (body: MaterialFields) => answered(api.POST('/api/materials', { body })),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, material }: { id: string; version: number; material: MaterialFields }) =>
      answered(api.PUT('/api/materials/{id}', { ...path(id), body: { version, material } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/materials/{id}', path(id))),
    onSettled: refresh,
  })
  const takeIn = useMutation({
    mutationFn: (body: { csv: string; write: boolean }) =>
      answered(api.POST('/api/materials/import', { body })),
    onSettled: (_done, _error, { write }) => (write ? refresh() : undefined),
  })

  return { create, change, remove, takeIn }
}

/** A material as the columns of the table, ready to be changed; a copy loses its id. */
export function columnsOf(material: Material, isCopy: boolean): MaterialFields {
  const { moisture_pct, n_pct, c_n, density_kg_l } = material
  return {
    id: isCopy ? '' : material.id,
    name: material.name,
    name_es: isCopy ? '' : material.name_es,
    // A copy is another thing: it is not called what the first is called.
    names: isCopy ? [] : material.names,
    names_es: isCopy ? [] : material.names_es,
    kind: material.kind,
    group: material.group,
    moisture_pct: moisture_pct.typical,
    moisture_low: moisture_pct.low,
    moisture_high: moisture_pct.high,
    n_pct: n_pct.typical,
    n_low: n_pct.low,
    n_high: n_pct.high,
    c_n: c_n.typical,
    c_n_low: c_n.low,
    c_n_high: c_n.high,
    ash_pct: material.ash_pct,
    lignin_pct: material.lignin_pct,
    density_kg_l: density_kg_l.typical,
    density_low: density_kg_l.low,
    density_high: density_kg_l.high,
    settle: material.settle,
    p_pct: material.p_pct,
    k_pct: material.k_pct,
    degradability: material.degradability,
    particle: material.particle,
    structure: material.structure,
    decays_pct: material.decays_pct,
    wet_max_pct: material.wet_max_pct,
    keeps_days: material.keeps_days,
    cautions: material.cautions.map((caution) => caution.code),
    source: material.source,
    note: material.note,
  }
}

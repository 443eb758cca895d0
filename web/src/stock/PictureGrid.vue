<script setup lang="ts">
import TextInput from '@/kit/TextInput.vue'
import { computed, ref } from 'vue'
import type { Material } from '@/api/client'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import { useMaterials, useMeasureList, useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { usualMeasure } from './sentence'
import { search } from './search'

/** What farms like this have, in pictures: a tap is one barrow or bucket more. Others are found by name. */
const counts = defineModel<Record<string, number>>({ required: true })

const say = useSay()
const { t } = say
const { materials } = useMaterials()
const { hatchOf } = useNames()
const { measures } = useMeasureList()

const sought = ref('')
const MOST = 24
const shown = computed(() => {
  const usable = materials.value.filter((one) => !one.must_not_go_in)
  const found = sought.value.trim()
    ? search(usable, sought.value)
    : usable.filter((one) => one.is_common || counts.value[one.id])
  return found.slice(0, MOST)
})

function unitOf(material: Material): string {
  const measure = usualMeasure(material.kind, measures.value ?? [])
  const count = counts.value[material.id] ?? 0
  return measure ? say.unitWord('measure', measure.id, count) : say.sign('mass')
}

function step(id: string, by: number) {
  counts.value = { ...counts.value, [id]: Math.max(0, (counts.value[id] ?? 0) + by) }
}
</script>

<template>
  <TextInput
    v-model="sought"
    type="search"
    fluid
    :placeholder="t('grid.seek')"
    :aria-label="t('grid.seek')"
  />
  <p v-if="!shown.length" class="quiet">{{ t('lot.noMaterial') }}</p>
  <ul>
    <li v-for="material in shown" :key="material.id" :class="{ on: counts[material.id] }">
      <button
        type="button"
        class="tile"
        :aria-label="t('grid.more', { unit: unitOf(material), name: material.name })"
        @click="step(material.id, 1)"
      >
        <HatchSwatch :hatch="hatchOf(material.id)" :size="40" />
        <span>{{ material.name }}</span>
      </button>
      <span v-if="counts[material.id]" class="count">
        <button
          type="button"
          class="less"
          :aria-label="t('grid.less', { unit: unitOf(material), name: material.name })"
          @click="step(material.id, -1)"
        >
          −
        </button>
        <b aria-live="polite">{{ say.count(counts[material.id]!) }} {{ unitOf(material) }}</b>
      </span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(148px, 1fr));
  gap: 8px;
  margin-top: 12px;
}

li {
  display: flex;
  flex-direction: column;
  border: 1px solid var(--line);
  border-radius: var(--radius);
}

li.on {
  border-color: var(--act);
  box-shadow: inset 0 0 0 1px var(--act);
}

.tile {
  display: flex;
  flex: 1;
  gap: 8px;
  align-items: center;
  min-height: 56px;
  padding: 7px;
  border: 0;
  background: none;
  font-size: 0.9375rem;
  line-height: 1.15;
  text-align: start;
  overflow-wrap: anywhere;
  hyphens: auto;
  cursor: pointer;
}

.tile:hover {
  background: var(--tint);
}

.count {
  display: flex;
  align-items: center;
  border-top: 1px solid var(--line);
  font-size: 0.9375rem;
}

.less {
  width: 44px;
  height: 44px;
  border: 0;
  background: none;
  font-size: 1.375rem;
  font-weight: 600;
  cursor: pointer;
}
</style>

<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import { useMaterials, useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { useStock } from './useStock'

/** The hatch of every material with its name, to print and hang in the shed. */
const { t, nameOf } = useSay()
const { materials } = useMaterials()
const { hatchOf } = useNames()
const { lots } = useStock()

const isAll = ref(false)
const signs = computed(() => {
  const ids = isAll.value
    ? materials.value.filter((one) => !one.must_not_go_in).map((one) => one.id)
    : [...new Set((lots.value ?? []).map((lot) => lot.material))]
  return ids.map((id) => ({ id, name: nameOf(id) })).sort((a, b) => a.name.localeCompare(b.name))
})
const print = () => window.print()
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ t('signs.title') }}</h1>
      <p>{{ t('signs.lead') }}</p>
    </div>
    <div class="acts">
      <ActButton to="/stock" variant="outlined" :label="t('signs.toStock')" />
      <ActButton :label="t('layers.print')" @click="print" />
    </div>
  </header>
  <label class="check">
    <input v-model="isAll" type="checkbox" />
    {{ t('signs.all') }}
  </label>
  <ul>
    <li v-for="sign in signs" :key="sign.id">
      <HatchSwatch :hatch="hatchOf(sign.id)" :size="64" />
      <b>{{ sign.name }}</b>
    </li>
  </ul>
</template>

<style scoped>
.check {
  margin-top: 12px;
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 14px 22px;
  margin-top: 10px;
}

li {
  display: flex;
  gap: 14px;
  align-items: center;
  break-inside: avoid;
}

b {
  min-width: 0;
  overflow-wrap: anywhere;
}

@media print {
  .acts,
  .check {
    display: none;
  }
}
</style>

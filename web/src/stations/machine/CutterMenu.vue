<script setup lang="ts">
// Which cutter is used: the one the program was started with, or another that is named.
import { Button, Input, Popover } from 'ant-design-vue'
import { ref, watch } from 'vue'
import { api } from '../../api/client'
import type { OtherCutter } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import { INCH } from '../../parts/measure'
import { usePopover } from '../../parts/usePopover'
import { useMachine } from '../../store/machine'

const machine = useMachine()
const open = ref(false)
usePopover(open, '[data-testid=cutter-menu]')
const named = ref<OtherCutter>({ address: '', width: 12 * INCH, height: 12 * INCH })
const wrong = ref('')
watch(open, async (is) => {
  wrong.value = ''
  if (!is) return
  const now = await api.namedCutter().catch(() => undefined)
  if (now?.address) named.value = now
})

async function use(c: OtherCutter) {
  try {
    await api.useCutter(c)
    open.value = false
    await machine.look()
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="topLeft">
    <button class="verb" data-testid="other-cutter">Change</button>
    <template #content>
      <div class="list" data-testid="cutter-menu">
        <b>Another cutter</b>
        <small
          >Any that reads HP-GL: by its address and port, like 192.168.1.40:9100, or by the path of its serial line,
          like /dev/ttyUSB0.</small
        >
        <Input v-model:value="named.address" placeholder="Address" aria-label="Address" data-testid="cutter-address" />
        <div class="pair">
          <MeasureField
            label="Reaches"
            :mm="named.width"
            testid="cutter-width"
            @set="named.width = $event"
            @wrong="wrong = $event"
          />
          <MeasureField
            label="by"
            :mm="named.height"
            testid="cutter-height"
            @set="named.height = $event"
            @wrong="wrong = $event"
          />
        </div>
        <p v-if="wrong" class="wrong" role="alert" data-testid="cutter-wrong">{{ wrong }}</p>
        <div class="buttons">
          <Button type="primary" size="small" :disabled="!named.address" data-testid="cutter-use" @click="use(named)"
            >Use it</Button
          >
          <Button size="small" data-testid="cutter-own" @click="use({ ...named, address: '' })"
            >Back to the one it came with</Button
          >
        </div>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.list {
  display: grid;
  gap: 8px;
  width: 280px;
}
p {
  margin: 0;
}
.buttons {
  display: flex;
  gap: 6px;
}
</style>

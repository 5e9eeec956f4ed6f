<script setup lang="ts">
// The kinds of paper that there are, and what is known of one of them.
import { Button, Modal } from 'ant-design-vue'
import { computed } from 'vue'
import { useStocks } from '../store/stocks'
import StockForm from './StockForm.vue'

const stocks = useStocks()
const offered = computed(() => stocks.all.filter((s) => !s.hidden))
const away = computed(() => stocks.all.filter((s) => s.hidden))
let last = ''
/** What was just chosen or added is in sight. */
function seen(el: HTMLElement | null) {
  if (!el || last === stocks.chosen) return
  last = stocks.chosen
  el.scrollIntoView({ block: 'nearest' })
}
const lists = computed(() => [
  { name: 'On the shelf', list: offered.value },
  { name: 'Put away', list: away.value },
])
</script>

<template>
  <Modal v-model:open="stocks.shown" :footer="null" :width="880" title="Stocks on the shelf" centered>
    <div class="shelf" data-testid="stocks">
      <nav aria-label="Stocks">
        <div class="list">
          <template v-for="l in lists" :key="l.name">
            <h3 v-if="l.list.length">{{ l.name }}</h3>
            <button
              v-for="s in l.list"
              :key="s.id"
              :ref="(el) => s.id === stocks.chosen && seen(el as HTMLElement | null)"
              class="row"
              :class="{ on: s.id === stocks.chosen, away: s.hidden }"
              :aria-pressed="s.id === stocks.chosen"
              :data-testid="'stock-' + s.id"
              @click="stocks.chosen = s.id"
            >
              <i :style="{ background: s.colour }" />
              <span>
                <b>{{ s.name }}</b>
                <small
                  >{{ +s.thickness.toFixed(3) }} mm{{ s.own ? ' · your own' : s.changed ? ' · measured' : '' }}</small
                >
              </span>
            </button>
          </template>
        </div>
        <Button class="add" data-testid="stock-add" @click="stocks.add()">Add a stock like this</Button>
      </nav>
      <StockForm v-if="stocks.stock" :key="stocks.stock.id" :stock="stocks.stock" />
    </div>
  </Modal>
</template>

<style scoped>
.shelf {
  display: grid;
  grid-template-columns: 262px minmax(0, 1fr);
  height: min(600px, 74vh);
  margin: 0 -24px -20px;
  border-top: 1px solid var(--paper3);
}
nav {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--paper1);
  border-right: 1px solid var(--paper3);
}
.list {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 12px;
}
h3 {
  margin: 4px 8px 6px;
}
.row {
  display: flex;
  gap: 10px;
  align-items: center;
  width: 100%;
  padding: 5px 8px;
  border: 0;
  border-radius: var(--r);
  background: none;
  text-align: left;
  cursor: pointer;
}
.row:hover:not(.on) {
  background: var(--paper2);
}
.row.on {
  background: #f6e3da;
}
.row i {
  flex: none;
  width: 26px;
  height: 30px;
  border-radius: 3px;
  box-shadow:
    inset 0 0 0 1px #0002,
    0 1px 2px #0002;
}
.row.away i {
  opacity: 0.55;
}
.row span {
  min-width: 0;
}
.row b,
.row small {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.row b {
  font-weight: 550;
}
.row small {
  color: var(--ink5);
  font-size: 11.5px;
}
.add {
  margin: 10px 14px 14px;
}
</style>

<template>
  <RouterLink to="/" class="mark" aria-label="Sectilis, to the table of cards" data-testid="home">
    <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
      <path d="M3 6 12 3v17l-9 3z" fill="#a8432a" />
      <path d="M12 3l11 4v16l-11-3z" fill="#e2a42b" />
      <path d="M12 3v17" stroke="#fffdf9" stroke-width="1.2" stroke-dasharray="2 1.6" />
    </svg>
    Sectilis
  </RouterLink>
</template>

<style scoped>
.mark {
  display: flex;
  align-items: center;
  gap: 9px;
  font: 600 20px 'Fraunces Variable';
  color: var(--ink9);
  text-decoration: none;
}
</style>

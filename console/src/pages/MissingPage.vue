<template>
  <main class="mx-auto max-w-2xl px-4 py-16 text-center">
    <h1 class="text-lg font-semibold">There is no such page</h1>
    <p class="mt-2 text-soft">
      The address leads nowhere. <RouterLink :to="{ name: 'search' }" class="part text-ink">Search</RouterLink> instead.
    </p>
  </main>
</template>

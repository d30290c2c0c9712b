<script setup lang="ts">
import { onMounted } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { pageAfterSignIn } from '../signIn'

// Until somebody is signed in, the form stands here, as on every page; afterwards they go where they wanted to.
const route = useRoute()
const router = useRouter()
onMounted(() => void router.replace(pageAfterSignIn(route)))
</script>

<template><main></main></template>

import { ref } from 'vue'

/** Whether the last request reached the server. */
export const isReachable = ref(true)

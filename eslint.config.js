import pluginVue from 'eslint-plugin-vue'
import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'

export default defineConfigWithVueTs(
    { ignores: ['public/**', 'var/**', 'vendor/**', 'node_modules/**'] },
    pluginVue.configs['flat/essential'],
    vueTsConfigs.recommended,
    {
        rules: {
            'vue/multi-word-component-names': 'off',
            // The typed client is the only code that talks to the server.
            'no-restricted-globals': ['error', { name: 'fetch', message: 'Use ui/api/client.ts.' }],
        },
    },
    {
        files: ['ui/api/client.ts', 'ui/api/client.test.ts', 'ui/api/reach.ts'],
        rules: { 'no-restricted-globals': 'off' },
    },
)

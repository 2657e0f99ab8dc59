<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { upperFirst } from '@core/quantity';
import { backupTrouble, loadBackup, useBackup } from '../../logbook/backupState';
import { allowAgain, backUpTo, canChooseFolder, chooseFolder, folder, forgetFolder, loadFolder } from './folder';
import ExportSheet from '../ExportSheet.vue';
import { WHOLE } from '../target';

/** When the last backup was made, and where the next ones go by themselves. */
const { says } = useBackup();
const isExporting = ref(false);
const isBusy = ref(false);
onMounted(() => Promise.all([loadBackup(), loadFolder()]));

async function busily(work: () => Promise<void>): Promise<void> {
  isBusy.value = true;
  await work().finally(() => (isBusy.value = false));
}
const writeNow = () => busily(() => (folder.value ? backUpTo(folder.value) : Promise.resolve()));
</script>

<template>
  <p role="status">
    {{ says ? `${upperFirst(says)}.` : 'There is nothing to back up yet.' }}
  </p>
  <p v-if="backupTrouble" class="due" role="alert">{{ backupTrouble }}</p>
  <p v-if="folder">
    After each finished run a dated backup is written to the folder <strong>{{ folder.name }}</strong>; the last ten are kept.
  </p>
  <p v-else-if="canChooseFolder()" class="soft">Choose a folder once, and a backup is written there after each finished run.</p>
  <p v-else class="soft">This browser lets no folder be chosen: save a backup as a file now and then.</p>
  <div class="acts">
    <v-btn :disabled="isBusy" @click="isExporting = true">Save a backup as a file</v-btn>
    <template v-if="folder">
      <v-btn v-if="backupTrouble" :loading="isBusy" @click="busily(allowAgain)">Allow it again</v-btn>
      <v-btn v-else :loading="isBusy" @click="writeNow">Back up now</v-btn>
      <v-btn variant="text" :disabled="isBusy" @click="forgetFolder">Stop writing there</v-btn>
    </template>
    <v-btn v-if="canChooseFolder()" variant="text" :loading="isBusy" @click="busily(chooseFolder)">{{
      folder ? 'Another folder' : 'Choose a folder'
    }}</v-btn>
  </div>
  <ExportSheet v-if="isExporting" v-model="isExporting" :targets="[WHOLE]" />
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>

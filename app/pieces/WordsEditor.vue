<script setup lang="ts">
import { EditorContent, useEditor } from '@tiptap/vue-3';
import { onMounted, ref } from 'vue';
import type { Paragraph } from '@core/report';
import { EXTENSIONS, fromEditor, toEditor } from './words';

/** The words of a block in an editor. What stands in it is kept by *Done*, by leaving it, or by Ctrl Enter; Esc leaves it as it was. */
const props = defineProps<{ name: string; words: readonly Paragraph[] }>();
const emit = defineEmits<{ write: [words: Paragraph[]]; close: [] }>();

const isChanged = ref(false);
const nonce = document.querySelector<HTMLMetaElement>('meta[name="inkpath-nonce"]')?.content ?? '';
const editor = useEditor({
  extensions: EXTENSIONS,
  content: toEditor(props.words),
  injectNonce: nonce,
  editorProps: { attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': `${props.name}, in your own words` } },
  onUpdate: () => (isChanged.value = true),
});
onMounted(() => editor.value?.commands.focus('end'));

function done(): void {
  if (isChanged.value && editor.value) emit('write', fromEditor(editor.value.getJSON()));
  isChanged.value = false;
  emit('close');
}
/** Left by the focus, it is done. */
function leave({ relatedTarget, currentTarget }: FocusEvent): void {
  if (relatedTarget instanceof Node && currentTarget instanceof HTMLElement && !currentTarget.contains(relatedTarget)) done();
}
function cancel(): void {
  isChanged.value = false;
  emit('close');
}
</script>

<template>
  <div
    class="editor"
    @focusout="leave"
    @keydown.esc.stop="cancel"
    @keydown.ctrl.enter.prevent.stop="done"
    @keydown.meta.enter.prevent.stop="done"
  >
    <div class="tools chosen-of" role="group" :aria-label="`How ${name} is set`">
      <button type="button" :aria-pressed="editor?.isActive('bold') ?? false" @click="editor?.chain().focus().toggleBold().run()">
        Bold
      </button>
      <button type="button" :aria-pressed="editor?.isActive('italic') ?? false" @click="editor?.chain().focus().toggleItalic().run()">
        Italic
      </button>
      <button
        type="button"
        :aria-pressed="editor?.isActive('bulletList') ?? false"
        @click="editor?.chain().focus().toggleBulletList().run()"
      >
        List
      </button>
    </div>
    <EditorContent v-if="editor" :editor="editor" />
    <p class="acts">
      <v-btn size="small" variant="flat" color="primary" @click="done">Done</v-btn>
      <v-btn size="small" variant="text" @click="cancel">Cancel</v-btn>
      <small class="soft">Figures follow the ink; they are moved and deleted as one.</small>
    </p>
  </div>
</template>

<style scoped>
.editor {
  border-block: 1px solid rgb(var(--v-theme-line));
  padding-block: 0.4rem;
}

.editor :deep([role='textbox']) {
  min-height: 3rem;
  padding: 0.4rem 0.2rem;
  outline: none;
}

.editor :deep([role='textbox']:focus-visible) {
  box-shadow: inset 0 -2px 0 rgb(var(--v-theme-due));
}

.editor :deep(p) {
  margin-bottom: 0.6rem;
}

.editor :deep(ul) {
  padding-inline-start: 1.2rem;
}

.editor :deep(.figure-in-words) {
  border-bottom: 1px dotted currentColor;
  background: rgb(var(--v-theme-desk));
  white-space: nowrap;
}

.editor :deep(.ProseMirror-selectednode) {
  outline: 2px solid rgb(var(--v-theme-due));
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.6rem;
  align-items: center;
}
</style>

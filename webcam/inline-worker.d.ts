// A worker whose code lies in the script that starts it (Vite).
declare module '*?worker&inline' {
  const VoiceWorker: new () => Worker
  export default VoiceWorker
}

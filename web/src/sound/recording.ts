// Records from a microphone: how loud it is while it listens, and takes as files.

export interface Listening {
  /** How loud it is now: the greatest amplitude of the last moment, 0..1. */
  level: () => number
  /** Begins a take; what is returned ends it and gives its file. */
  take: (name: string) => () => Promise<File>
  close: () => void
}

/** Opens the microphone. It is refused by the person, or there is none: an error of the browser. */
export async function listenIn(): Promise<Listening> {
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
  })
  const context = new AudioContext()
  const analyser = context.createAnalyser()
  analyser.fftSize = 1024
  context.createMediaStreamSource(stream).connect(analyser)
  const samples = new Float32Array(analyser.fftSize)
  return {
    level: () => {
      analyser.getFloatTimeDomainData(samples)
      return samples.reduce((most, v) => Math.max(most, Math.abs(v)), 0)
    },
    take: (name) => {
      const recorder = new MediaRecorder(stream, { audioBitsPerSecond: 192000 })
      const parts: Blob[] = []
      recorder.ondataavailable = (e) => parts.push(e.data)
      const ended = new Promise<void>((r) => {
        recorder.onstop = () => r()
      })
      recorder.start(1000)
      return async () => {
        recorder.stop()
        await ended
        return new File(parts, `${name}.webm`, { type: recorder.mimeType })
      }
    },
    close: () => {
      for (const t of stream.getTracks()) t.stop()
      void context.close()
    },
  }
}

package e2e

import (
	"encoding/base64"
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"unsafe"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/sound"
	"capstan/e2e/browser"
	"capstan/studio/media"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// toned is a file of a tone that ffmpeg makes.
func toned(t *testing.T, name string, seconds float64, hz int) string {
	t.Helper()
	file := filepath.Join(t.TempDir(), name)
	if out, err := exec.Command("ffmpeg", "-loglevel", "error", "-y", "-f", "lavfi", "-i", fmt.Sprintf("sine=frequency=%d:duration=%g:sample_rate=48000", hz, seconds), file).CombinedOutput(); err != nil {
		t.Fatalf("%v %s", err, out)
	}
	return file
}

// sailing is a film in which a kite goes from the left side of the page to the right in two seconds.
func sailing() *doc.Project {
	p := doc.NewProject("sailing", "Sailing", 640, 360, "s0")
	p.Film.Scenes[0].Stay = 4000
	l := &doc.Layer{ID: "kite", Thread: "kite", Name: "Kite", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 0, Y: 180, W: 60, H: 60}}
	l.Moves = []*doc.Move{{ID: "fly", Kind: doc.MotionPath, Effect: doc.Along, Duration: 2000, Easing: "linear", Start: doc.Start{When: doc.AtTime, Offset: 1000}, Path: &doc.PathParams{D: "M0 0L640 0"}}}
	p.Film.Scenes[0].Layers = []*doc.Layer{l}
	return p
}

// heardOf is a row of a sound, as the page shows it: begin and end in ms of the film, and the words of when it is heard.
func (p *person) heardOf(name string) (words string) {
	p.t.Helper()
	return browser.Eval[string](p.t, p.ctx, fmt.Sprintf(`[...document.querySelectorAll('[data-sound]')].find(e => e.ariaLabel.startsWith('%s:')).ariaLabel`, name))
}

func (p *person) heard(name, want string) {
	p.t.Helper()
	if got := p.heardOf(name); got != want {
		p.t.Errorf("%s is %q, want %q", name, got, want)
	}
}

// played collects what is handed to the sound card from now on: samples with the times at which they are heard.
const played = `(() => {
	const all = window.played = []
	const start = AudioBufferSourceNode.prototype.start
	AudioBufferSourceNode.prototype.start = function (at) {
		const b = this.buffer
		all.push({ at, rate: this.playbackRate.value, l: Array.from(b.getChannelData(0)), r: Array.from(b.getChannelData(b.numberOfChannels - 1)) })
		return start.call(this, at)
	}
	return true
})()`

// Sounds come in from disk, short ones with the scene and long ones with the film; they are dragged, trimmed, faded, muted and bound to a move by the pointer and by
// keys, each undone as a whole. What is heard on the page is what the core mixes, to the sample, and in step with the picture; what is exported is that, too.
func TestSoundsAreBroughtInShapedPlayedAndExported(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(sailing(), media.NewFolder(t.TempDir()))
	p.do(chromedp.SetUploadFiles(`[data-sound-input]`, []string{toned(t, "Hum.wav", 1.5, 220)}))
	p.wait(`document.querySelector('[data-sound-name="Hum"]')`)
	p.settled()
	p.heard("Hum", "Hum: heard in Scene 1, at 0.00 s, for 1.50 s")
	p.do(chromedp.SetUploadFiles(`[data-sound-input]`, []string{toned(t, "Tune.mp3", 12, 660)}))
	p.wait(`document.querySelector('[data-sound-name="Tune"]')`)
	p.settled()
	p.heard("Tune", "Tune: heard with the film, from 0.00 s on, for 4.00 s") // as long as the film is
	hum := `[data-sound][aria-label^="Hum"]`
	p.undone("dragged", func() {
		p.pull(hum, "", 1.2*1000*p.perMs(), 0, chromedp.ModifierAlt)
		p.heard("Hum", "Hum: heard in Scene 1, at 1.20 s, for 1.50 s")
	})
	p.undone("trimmed", func() {
		p.pull(hum+` [data-grip=end]`, "", -0.5*1000*p.perMs(), 0, chromedp.ModifierAlt)
		p.heard("Hum", "Hum: heard in Scene 1, at 0.00 s, for 1.00 s")
	})
	p.undone("faded", func() { p.pull(hum+` [data-grip=out]`, "", -0.6*1000*p.perMs(), 0) })
	p.undone("a volume at a point", func() {
		x, y := p.middle(hum)
		p.do(chromedp.MouseClickXY(x, y), chromedp.MouseClickXY(x, y+6, chromedp.ClickCount(2)))
		p.wait(`document.querySelector('[data-point]')`)
		p.settled()
	})
	p.undone("muted", func() { p.press(`[data-sound-row] [aria-label="Mute Hum"]`) })
	p.undone("by keys", func() {
		p.do(chromedp.Focus(hum))
		p.key(kb.ArrowRight)
		p.settled()
	})
	// It snaps to where the move begins, and dropped on its bar it goes along with it.
	p.pull(hum, "", 0.985*1000*p.perMs(), 0)
	p.heard("Hum", "Hum: heard in Scene 1, at 1.00 s, for 1.50 s")
	p.pull(hum, bar("Path", "Kite"), 0, 0)
	p.heard("Hum", "Hum: heard when Path of Kite begins, until Path of Kite ends, for 2.00 s")
	p.press(`[data-sound-name="Hum"]`)
	p.set("Volume in decibels", "-6")
	p.settled()
	p.press(`[data-sound-name="Tune"]`)
	p.set("How long it fades in", "0.5")
	p.settled()
	p.shot("sounds")

	// What is played is what the core mixes of the stored film, from recordings that were decoded by themselves.
	film, files := p.storedFilm()
	mix := make([]float32, 2*sound.Frames(4000))
	(&sound.Mixer{Score: sound.Of(film), Source: files.Recordings()}).Mix(0, mix)
	browser.Eval[bool](t, p.ctx, played)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(" ")
	p.wait(`Number(document.querySelector('[data-ruler]').getAttribute('aria-valuenow')) > 2`)
	heard := browser.Eval[struct {
		At      []float64
		Samples string
	}](t, p.ctx, `(() => {
		const list = played.filter((p) => p.rate === 1)
		const all = new Float32Array(list.reduce((n, p) => n + 2 * p.l.length, 0))
		let k = 0
		for (const p of list) for (let i = 0; i < p.l.length; i++) { all[k++] = p.l[i]; all[k++] = p.r[i] }
		const bytes = new Uint8Array(all.buffer)
		let s = ''
		for (let i = 0; i < bytes.length; i += 4096) s += String.fromCharCode(...bytes.subarray(i, i + 4096))
		return { at: list.map((p) => p.at), samples: btoa(s) }
	})()`)
	p.key(" ")
	raw, _ := base64.StdEncoding.DecodeString(heard.Samples)
	samples := floats(raw)
	// Each stretch is the film from when on it is heard; what a busy machine could not hand over in time is left out, and the rest is where it belongs.
	worst, done := 0.0, 0
	for i, at := range heard.At {
		begin := int(math.Round((at - heard.At[0]) * sound.Rate))
		part := samples[done:min(len(samples), done+2*sound.Rate/10)]
		done += len(part)
		for k, v := range part {
			if j := 2*begin + k; j < len(mix) {
				worst = max(worst, math.Abs(float64(v-mix[j])))
			}
		}
		if d := at - heard.At[max(0, i-1)] - 0.1; i > 0 && d < -1e-4 {
			t.Errorf("stretch %d begins %.4f s before the one before it has ended", i, -d)
		}
	}
	if len(samples) < 2*96000 || worst > sound.Amplitude(-90) {
		t.Errorf("of %d samples that were played one is %.1f dB off what the core mixes", len(samples), sound.Decibels(worst))
	}

	// The same in a file.
	p.pressWord("Export film")
	p.press(`[data-kind=wav]`)
	p.shot("export-sound")
	p.pressWord("Export WAV")
	p.wait(`document.querySelector('[data-state=done] a[download]')`)
	file := filepath.Join(t.TempDir(), "out.wav")
	if err := os.WriteFile(file, p.s.fetch(browser.Eval[string](t, p.ctx, `new URL(document.querySelector('[data-state=done] a[download]').href).pathname`)), 0o600); err != nil {
		t.Fatal(err)
	}
	out, err := exec.Command("ffmpeg", "-loglevel", "error", "-i", file, "-f", "f32le", "-").Output()
	if err != nil {
		t.Fatal(err)
	}
	decoded := floats(out)
	worst = 0
	for i := range min(len(decoded), len(mix)) {
		worst = max(worst, math.Abs(float64(decoded[i]-mix[i])))
	}
	if len(decoded) != len(mix) || worst > sound.Amplitude(-90) {
		t.Errorf("the file has %d samples of %d, one %.1f dB off", len(decoded), len(mix), sound.Decibels(worst))
	}
}

// floats are samples as they lie in memory, of a browser as of this machine.
func floats(raw []byte) []float32 {
	if len(raw) < 4 {
		return nil
	}
	return unsafe.Slice((*float32)(unsafe.Pointer(&raw[0])), len(raw)/4)
}

// Words are spoken, heard and taken, and spoken again when they change; a voice is recorded in takes, of which one is used. Music steps back under both.
func TestVoicesAreSpokenAndRecorded(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(sailing(), media.NewFolder(t.TempDir()))
	p.do(chromedp.SetUploadFiles(`[data-sound-input]`, []string{toned(t, "Tune.flac", 12, 660)}))
	p.wait(`document.querySelector('[data-sound-name="Tune"]')`)
	p.press(`[aria-label="Sound"]`)
	p.pressWord("Speak some words …")
	p.do(chromedp.SendKeys(`[aria-label="Words to be spoken"]`, "Kites up at ten. Bring a tail!"))
	p.wait(`document.querySelector('[data-choice="Language of the voice"]').innerText.includes('English')`)
	browser.Eval[bool](t, p.ctx, played)
	p.pressWord("Hear it")
	p.wait(`played.length === 1 && played[0].l.length > 48000 && Math.max(...played[0].l.slice(0, 90000)) > 0.1`)
	p.pressWord("Add the voice")
	p.wait(`document.querySelector('[data-sound-name^="Kites up at ten"]')`)
	p.settled()
	long := func() float64 {
		return browser.Eval[float64](t, p.ctx, `Number(document.querySelector('[data-sound][aria-label^="Kites up"]').ariaLabel.match(/for ([0-9.]+) s/)[1])`)
	}
	first := long()
	p.choose("How fast it speaks", "0.7")
	p.pressWord("Speak it again")
	p.wait(fmt.Sprintf(`Number(document.querySelector('[data-sound][aria-label^="Kites up"]').ariaLabel.match(/for ([0-9.]+) s/)[1]) > %g`, first*1.15))
	p.settled()
	// What it says is shown in the film while it says it, and is read by the browser as captions.
	plain := p.pixels(0, 500, false, 320, 180, "#fff")
	p.tick("They are shown in the picture")
	p.settled()
	if n := differing(p.pixels(0, 500, false, 320, 180, "#fff"), plain, 40); n < 200 {
		t.Errorf("with a caption %d pixels are others", n)
	}
	p.shot("voice")
	p.pressWord("Export film")
	p.press(`[data-kind=vtt]`)
	p.pressWord("Export Captions, VTT")
	p.wait(`document.querySelector('[data-state=done] a[download]')`)
	cues := browser.Eval[[]string](t, p.ctx, `(async () => {
		const text = await (await fetch(document.querySelector('[data-state=done] a[download]').href)).text()
		const video = document.createElement('video'), track = document.createElement('track')
		track.src = URL.createObjectURL(new Blob([text], { type: 'text/vtt' }))
		video.append(track)
		track.track.mode = 'hidden'
		await new Promise((r) => { track.onload = track.onerror = r })
		return [...track.track.cues].map((c) => c.startTime.toFixed(1) + ' ' + c.text)
	})()`)
	if len(cues) != 2 || cues[0] != "0.0 Kites up at ten." || !strings.HasSuffix(cues[1], "Bring a tail!") {
		t.Errorf("the browser reads %q", cues)
	}
	p.key(kb.Escape)
	// A move begins at one of its words, also when they are said later.
	p.press(bar("Path", "Kite"))
	p.choose("Starts", "heard")
	p.settled()
	now, _ := p.storedFilm()
	marks := now.Doc.Film.Scenes[0].Sounds[0].Marks
	if len(marks) != 7 || marks[6].Name != "tail" || !marks[6].Word {
		t.Fatalf("the voice has the marks %v", marks)
	}
	p.choose("Sound it starts with", marks[6].ID)
	p.settled()
	p.press(`[data-sound-name^="Kites up"]`)
	p.set("When it begins on the scene’s clock", "0.25")
	p.settled()
	now, _ = p.storedFilm()
	if begin := now.Timing(0).Moves["fly"].Begin; begin != 250+marks[6].At {
		t.Errorf("at a word the move begins at %d, want %d", begin, 250+marks[6].At)
	}
	// By the microphone, which the browser simulates: a beep every second.
	p.press(`[aria-label="Sound"]`)
	p.pressWord("Record a voice …")
	p.wait(`document.querySelector('[data-record-panel] [role=img]')`)
	p.pressWord("Record")
	p.wait(`document.querySelector('[data-record-state=recording]')`)
	p.wait(`parseFloat(document.querySelector('[data-record-state]').innerText) > 1.4`)
	p.pressWord("Stop")
	p.wait(`document.querySelector('[aria-label=Takes] li')`)
	p.shot("record")
	p.pressWord("Use it")
	p.wait(`document.querySelector('[data-sound-name="Take 1"]')`)
	p.settled()
	var back int
	film, files := p.storedFilm()
	for _, part := range sound.Of(film).Parts {
		if part.Sound.Use != doc.Voice {
			continue
		}
		back++
		if samples := make([]float32, int(part.Recording.Samples)*part.Recording.Channels); !files.Recordings().Read(part.Sound.Media, part.Recording.Channels, 0, samples) || loudest(samples) < 0.05 {
			t.Errorf("nothing is heard in %s", part.Sound.Name)
		}
	}
	score, least := sound.Of(film), 0.0
	for _, c := range score.Course(score.Parts[0]) {
		if c.At < 2000 {
			least = min(least, c.DB)
		}
	}
	if back != 2 || least > -11.9 || least < -12.1 {
		t.Errorf("%d voices; music steps back by %v dB", back, least)
	}
}

func loudest(samples []float32) (most float32) {
	for _, v := range samples {
		most = max(most, v, -v)
	}
	return most
}

// storedFilm is the film of a project as the studio has it, and its media.
func (p *person) storedFilm() (*frame.Film, *media.Folder) {
	p.t.Helper()
	project, err := doc.Read([]byte(p.stored()))
	if err != nil {
		p.t.Fatal(err)
	}
	files := media.NewFolder(filepath.Join(p.s.dir, "media"))
	return compileFor(p.t, project, files).film, files
}

package media

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"unsafe"

	"capstan/core/doc"
	"capstan/core/sound"
	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/budget"

	"github.com/gabriel-vasile/mimetype"
)

// MaxSoundBytes is how large a file with sound may be.
const MaxSoundBytes = 1 << 30

// recording is a kind of file with sound: what it is called here, and ffmpeg's reader of it, which alone may read it.
type recording struct{ mime, ext, demuxer string }

// recordings are the kinds of files that sound is taken from, by what they are found to be.
var recordings = map[string]recording{
	"audio/mpeg":       {"audio/mpeg", ".mp3", "mp3"},
	"audio/wav":        {"audio/wav", ".wav", "wav"},
	"audio/aiff":       {"audio/aiff", ".aiff", "aiff"},
	"audio/flac":       {"audio/flac", ".flac", "flac"},
	"audio/ogg":        {"audio/ogg", ".ogg", "ogg"},
	"application/ogg":  {"audio/ogg", ".ogg", "ogg"},
	"video/ogg":        {"video/ogg", ".ogv", "ogg"},
	"audio/aac":        {"audio/aac", ".aac", "aac"},
	"audio/mp4":        {"audio/mp4", ".m4a", "mov"},
	"audio/x-m4a":      {"audio/mp4", ".m4a", "mov"},
	"video/mp4":        {"video/mp4", ".mp4", "mov"},
	"video/x-m4v":      {"video/mp4", ".m4v", "mov"},
	"video/quicktime":  {"video/quicktime", ".mov", "mov"},
	"video/webm":       {"video/webm", ".webm", "matroska"},
	"video/x-matroska": {"video/x-matroska", ".mkv", "matroska"},
}

// recordingOf is the kind of a file, whatever it is called; false for one that sound is not taken from.
func recordingOf(file string) (recording, bool) {
	m, err := mimetype.DetectFile(file)
	for ; err == nil && m != nil; m = m.Parent() {
		if k, ok := recordings[strings.Split(m.String(), ";")[0]]; ok {
			return k, true
		}
	}
	return recording{}, false
}

// TakeSound takes in a file with sound: it is decoded once, to 48,000 frames a second, and its peaks are kept for drawing. The original stays. The name is only
// remembered.
func (f *Folder) TakeSound(ctx context.Context, r io.Reader, name string) (hash string, facts *doc.Media, err error) {
	tmp, err := os.CreateTemp(f.dir, aside.Pattern)
	if err != nil {
		return "", nil, err
	}
	defer os.Remove(tmp.Name())
	sum := sha256.New()
	n, err := io.Copy(io.MultiWriter(tmp, sum), io.LimitReader(r, MaxSoundBytes+1))
	if err = errors.Join(err, tmp.Sync(), tmp.Close()); err != nil {
		return "", nil, err
	}
	if n > MaxSoundBytes {
		return "", nil, words.New("sound.too-large", MaxSoundBytes>>20)
	}
	hash = hex.EncodeToString(sum.Sum(nil))
	kind, ok := recordingOf(tmp.Name())
	if !ok {
		return "", nil, words.New("sound.kind")
	}
	facts = &doc.Media{Name: filepath.Base(name), Type: kind.mime, Bytes: n}
	if had, err := f.soundFacts(hash); err == nil && f.hasOriginal(hash) {
		facts.Samples, facts.Channels = had.Samples, had.Channels
		return hash, facts, nil
	}
	if err := f.decode(ctx, hash, tmp.Name(), kind, facts); err != nil {
		return "", nil, err
	}
	// The original comes last: a hash with its original is complete.
	if err := os.Chmod(tmp.Name(), 0o600); err != nil {
		return "", nil, err
	}
	return hash, facts, os.Rename(tmp.Name(), filepath.Join(f.dir, hash+kind.ext))
}

func (f *Folder) hasOriginal(hash string) bool {
	_, err := f.Original(hash)
	return err == nil
}

// soundFacts is what is known of a recording that was decoded.
func (f *Folder) soundFacts(hash string) (v struct {
	Samples  int64
	Channels int
}, err error) {
	data, err := os.ReadFile(filepath.Join(f.dir, hash, "sound.json"))
	if err == nil {
		err = json.Unmarshal(data, &v)
	}
	if err == nil {
		_, err = os.Stat(f.frames(hash))
	}
	return v, err
}

func (f *Folder) frames(hash string) string { return filepath.Join(f.dir, hash, "frames.f32") }
func (f *Folder) peaks(hash string, level int) string {
	return filepath.Join(f.dir, hash, fmt.Sprintf("peaks-%d.s8", level))
}

// decode writes the frames of a file and their peaks, and says in facts how many there are.
func (f *Folder) decode(ctx context.Context, hash, file string, kind recording, facts *doc.Media) error {
	ctx, stop := context.WithTimeout(ctx, budget.SoundTime)
	defer stop()
	channels, err := channelsOf(ctx, file, kind)
	if err != nil {
		return err
	}
	facts.Channels = min(channels, 2)
	if err := os.MkdirAll(filepath.Join(f.dir, hash), 0o700); err != nil {
		return err
	}
	out, err := os.CreateTemp(filepath.Join(f.dir, hash), aside.Pattern)
	if err != nil {
		return err
	}
	defer os.Remove(out.Name())
	defer out.Close()
	ctx, enough := context.WithCancel(ctx)
	defer enough()
	cmd := exec.CommandContext(ctx, "ffmpeg", "-hide_banner", "-loglevel", "error", "-nostdin", "-protocol_whitelist", "file,pipe", "-f", kind.demuxer, "-i", file,
		"-map", "0:a:0", "-vn", "-sn", "-dn", "-ac", strconv.Itoa(facts.Channels), "-ar", strconv.Itoa(sound.Rate), "-f", "f32le", "pipe:1")
	var last lastWords
	cmd.Stderr = &last
	pipe, err := cmd.StdoutPipe()
	if err != nil {
		return err
	}
	if err := cmd.Start(); err != nil {
		return words.Because(err, "sound.ffmpeg")
	}
	p := &sound.Peaks{}
	samples, err := f.copyFrames(out, pipe, facts.Channels, p)
	long := samples > doc.MaxRecording*sound.Rate
	if err != nil || long {
		enough()
	}
	waited := cmd.Wait()
	switch {
	case long:
		return words.New("sound.long", doc.MaxRecording/3600)
	case errors.Is(ctx.Err(), context.DeadlineExceeded):
		return words.New("sound.slow")
	case err != nil:
		return err
	case ctx.Err() != nil:
		return ctx.Err()
	case signalled(waited):
		return words.Because(waited, "sound.stopped")
	case waited != nil && samples < sound.Rate/20, samples == 0: // what is cut off at its end is heard up to there
		f := words.New("sound.damaged")
		f.Detail = string(last)
		return f
	}
	facts.Samples = samples
	p.Close()
	for k, level := range p.Levels {
		if err := aside.Write(f.peaks(hash, k), bytesOf(level), 0o600); err != nil {
			return err
		}
	}
	known, err := json.Marshal(map[string]int64{"Samples": samples, "Channels": int64(facts.Channels)})
	if err != nil {
		return err
	}
	if err := errors.Join(out.Sync(), out.Chmod(0o600), os.Rename(out.Name(), f.frames(hash))); err != nil {
		return err
	}
	return aside.Write(filepath.Join(f.dir, hash, "sound.json"), known, 0o600)
}

// signalled reports whether a program was ended from outside.
func signalled(err error) bool {
	var e *exec.ExitError
	return errors.As(err, &e) && !e.Exited()
}

// mostLoud is beyond what samples are cut off, as amplitudes: what is louder is no sound, and would drown all others.
const mostLoud = 8

// copyFrames copies samples to a file, and shows them to peaks; what is no number is silence. It returns how many frames there were, and stops after too many.
func (f *Folder) copyFrames(to io.Writer, from io.Reader, channels int, p *sound.Peaks) (frames int64, err error) {
	// It is read while what was read before is looked at: the program that decodes waits for neither.
	const buffers = 3
	type piece struct {
		buf []float32
		n   int
		err error
	}
	free, full := make(chan []float32, buffers), make(chan piece, buffers)
	for range buffers {
		free <- make([]float32, 1<<16*channels)
	}
	defer close(free)
	go func() {
		for buf := range free {
			n, err := io.ReadFull(from, bytesOf(buf))
			full <- piece{buf, n, err}
			if err != nil {
				return
			}
		}
	}()
	for {
		in := <-full
		n := in.n - in.n%(4*channels)
		part := in.buf[:n/4]
		for i, v := range part {
			switch {
			case v != v:
				part[i] = 0
			case v > mostLoud || v < -mostLoud:
				part[i] = float32(math.Copysign(mostLoud, float64(v)))
			}
		}
		p.Write(part, channels)
		if _, err := to.Write(bytesOf(part)); err != nil {
			return frames, err
		}
		if frames += int64(n / 4 / channels); frames > doc.MaxRecording*sound.Rate || errors.Is(in.err, io.EOF) || errors.Is(in.err, io.ErrUnexpectedEOF) {
			return frames, nil
		}
		if in.err != nil {
			return frames, in.err
		}
		free <- in.buf
	}
}

// bytesOf views samples, or peaks, as bytes, of the machine's order; all machines that Capstan runs on are little-endian.
func bytesOf[T float32 | int8](v []T) []byte {
	if len(v) == 0 {
		return nil
	}
	return unsafe.Slice((*byte)(unsafe.Pointer(&v[0])), len(v)*int(unsafe.Sizeof(v[0])))
}

// lastWords keeps the end of what a program says.
type lastWords []byte

func (l *lastWords) Write(p []byte) (int, error) {
	*l = append(*l, p...)
	if n := len(*l) - 600; n > 0 {
		*l = (*l)[n:]
	}
	return len(p), nil
}

// channelsOf asks how many channels the first sound of a file has, and how long it says that it is.
func channelsOf(ctx context.Context, file string, kind recording) (int, error) {
	cmd := exec.CommandContext(ctx, "ffprobe", "-v", "error", "-protocol_whitelist", "file,pipe", "-f", kind.demuxer, "-select_streams", "a:0",
		"-show_entries", "stream=channels,codec_tag_string:format=duration", "-of", "json", file)
	out, err := cmd.Output()
	if errors.Is(err, exec.ErrNotFound) {
		return 0, words.Because(err, "sound.ffmpeg")
	}
	var told struct {
		Streams []struct {
			Channels int    `json:"channels"`
			Tag      string `json:"codec_tag_string"`
		} `json:"streams"`
		Format struct {
			Duration string `json:"duration"`
		} `json:"format"`
	}
	if ctx.Err() != nil {
		return 0, ctx.Err()
	}
	if err != nil || json.Unmarshal(out, &told) != nil {
		return 0, words.New("sound.damaged")
	}
	if len(told.Streams) == 0 {
		return 0, words.New("sound.none")
	}
	if tag := told.Streams[0].Tag; tag == "enca" || tag == "drms" {
		return 0, words.New("sound.locked")
	}
	if s, err := strconv.ParseFloat(told.Format.Duration, 64); err == nil && s > doc.MaxRecording+1 {
		return 0, words.New("sound.long", doc.MaxRecording/3600)
	}
	if told.Streams[0].Channels < 1 {
		return 0, words.New("sound.damaged")
	}
	return told.Streams[0].Channels, nil
}

// soundAgain decodes a recording again of which only the original is left.
func (f *Folder) soundAgain(hash, original string) bool {
	kind, ok := recordingOf(original)
	if !ok {
		return false
	}
	f.large.Lock()
	defer f.large.Unlock()
	return f.decode(context.Background(), hash, original, kind, &doc.Media{}) == nil
}

// SoundFile returns the path of what a recording was decoded to: "frames", floats of 32 bits with their channels in turns, or "peaks-K", the peaks of a level.
func (f *Folder) SoundFile(hash, what string) (string, error) {
	if !hashForm.MatchString(hash) {
		return "", words.New("sound.lost")
	}
	p := f.frames(hash)
	if level, ok := strings.CutPrefix(what, "peaks-"); ok {
		k, err := strconv.Atoi(level)
		if err != nil || k < 0 || k > 16 {
			return "", words.New("sound.lost")
		}
		p = f.peaks(hash, k)
	}
	if _, err := os.Stat(p); err == nil {
		return p, nil
	}
	if f.Has(hash) {
		if _, err := os.Stat(p); err == nil {
			return p, nil
		}
	}
	return "", words.New("sound.lost")
}

// Recordings reads what was decoded, for one mixer; it is closed when that is done.
type Recordings struct {
	files *Folder
	open  map[string]*os.File
}

// Recordings returns a source of the recordings in the folder.
func (f *Folder) Recordings() *Recordings { return &Recordings{f, map[string]*os.File{}} }

// Read reads frames; see sound.Source.
func (r *Recordings) Read(media string, channels int, from int64, to []float32) bool {
	file := r.open[media]
	if file == nil {
		p, err := r.files.SoundFile(media, "frames")
		if err != nil {
			return false
		}
		if file, err = os.Open(p); err != nil {
			return false
		}
		r.open[media] = file
	}
	n, err := file.ReadAt(bytesOf(to), from*int64(channels)*4)
	return err == nil || n == 4*len(to)
}

// mostBeaten is of how long a recording beats are looked for, in s.
const mostBeaten = 15 * 60

// Beats finds the beats of a recording, in ms.
func (f *Folder) Beats(hash string) ([]int64, error) {
	known, err := f.soundFacts(hash)
	if err != nil {
		if _, err := f.SoundFile(hash, "frames"); err != nil {
			return nil, err
		}
		if known, err = f.soundFacts(hash); err != nil {
			return nil, words.New("sound.lost")
		}
	}
	if known.Samples > mostBeaten*sound.Rate {
		return nil, words.New("sound.beats-long", mostBeaten/60)
	}
	r := f.Recordings()
	defer r.Close()
	mono := make([]float32, 0, known.Samples)
	part := make([]float32, 1<<16*known.Channels)
	for at := int64(0); at < known.Samples; at += 1 << 16 {
		some := part[:min(1<<16, known.Samples-at)*int64(known.Channels)]
		if !r.Read(hash, known.Channels, at, some) {
			return nil, words.New("sound.lost")
		}
		for i := 0; i < len(some); i += known.Channels {
			v := some[i]
			if known.Channels == 2 {
				v = (v + some[i+1]) / 2
			}
			mono = append(mono, v)
		}
	}
	var list []int64
	for _, b := range sound.Beats(mono) {
		if ms := b / (sound.Rate / 1000); len(list) < doc.MaxBeats && (len(list) == 0 || ms > list[len(list)-1]) {
			list = append(list, ms)
		}
	}
	if len(list) < 4 {
		return nil, words.New("sound.beatless")
	}
	return list, nil
}

// Close closes the files.
func (r *Recordings) Close() error {
	var err error
	for _, f := range r.open {
		err = errors.Join(err, f.Close())
	}
	clear(r.open)
	return err
}

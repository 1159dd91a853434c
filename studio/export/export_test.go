package export_test

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/gif"
	"image/png"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/words"
	"capstan/demo"
	"capstan/library"
	"capstan/studio/export"
	"capstan/studio/media"
)

func opener(t *testing.T) (*frame.Film, *media.Folder) {
	t.Helper()
	b, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	files := media.NewFolder(t.TempDir())
	hash, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(demo.Opener(hash, facts), frame.Assets{Fonts: b}, nil)
	if err != nil {
		t.Fatal(err)
	}
	return f, files
}

func none(int64, int64) {}

func probe(t *testing.T, file string) map[string]any {
	t.Helper()
	out, err := exec.Command("ffprobe", "-v", "error", "-count_frames", "-select_streams", "v:0", "-show_streams", "-show_format", "-of", "json", file).Output()
	if err != nil {
		t.Fatal(err)
	}
	var v struct {
		Streams []map[string]any `json:"streams"`
		Format  map[string]any   `json:"format"`
	}
	if err := json.Unmarshal(out, &v); err != nil {
		t.Fatal(err)
	}
	v.Streams[0]["format_duration"] = v.Format["duration"]
	return v.Streams[0]
}

// A decoder that is not ours (ffprobe, ffmpeg) finds the frames, the rate, the colour tags and the pictures.
func TestMP4ReadsBackAsTheRenderedFrames(t *testing.T) {
	f, files := opener(t)
	out := filepath.Join(t.TempDir(), "film.mp4")
	w, h := delivery.Size(&f.Doc.Film, 270)
	for _, rate := range []doc.Rate{{Num: 30, Den: 1}, {Num: 24000, Den: 1001}} {
		o := export.Options{Format: "mp4", Width: w, Height: h, RateNum: rate.Num, RateDen: rate.Den, From: 3500, To: 7700}
		if err := export.Make(context.Background(), f, files, o, out, none); err != nil {
			t.Fatal(err)
		}
		s := probe(t, out)
		want := motion.Frames(4200, rate.Num, rate.Den)
		for k, v := range map[string]string{
			"codec_name": "h264", "pix_fmt": "yuv420p", "color_space": "bt709", "color_primaries": "bt709", "color_transfer": "bt709",
			"color_range": "tv", "r_frame_rate": fmt.Sprintf("%d/%d", rate.Num, rate.Den), "nb_read_frames": fmt.Sprint(want), "width": "480", "height": "270",
		} {
			if got := fmt.Sprint(s[k]); got != v {
				t.Errorf("%d/%d: %s is %s, want %s", rate.Num, rate.Den, k, got, v)
			}
		}
		if rate.Den == 1 {
			compareMP4(t, f, files, o, out)
		}
	}
	raw, err := os.ReadFile(out)
	if err != nil {
		t.Fatal(err)
	}
	if moov, mdat := bytes.Index(raw, []byte("moov")), bytes.Index(raw, []byte("mdat")); moov > mdat {
		t.Error("the index stands behind the pictures: it cannot start while it loads")
	}
}

// compareMP4 decodes to Y'CbCr and holds luma against our own frames: mean difference and SSIM by ffmpeg.
func compareMP4(t *testing.T, f *frame.Film, files *media.Folder, o export.Options, file string) {
	t.Helper()
	ref := filepath.Join(t.TempDir(), "ref.yuv")
	w, err := os.Create(ref)
	if err != nil {
		t.Fatal(err)
	}
	img := image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
	buf := make([]byte, o.Width*o.Height*3/2)
	p, painter := f.Player(), raster.NewPainter(f, files.Pixels)
	for k := int64(0); k < o.Frames(f); k++ {
		at := motion.FrameTime(k, o.RateNum, o.RateDen).Add(o.From)
		if err := painter.Paint(img, p.At(at, frame.View{Scale: 0.25})); err != nil {
			t.Fatal(err)
		}
		raster.YUV(buf, img)
		if _, err := w.Write(buf); err != nil {
			t.Fatal(err)
		}
	}
	w.Close()
	out, err := exec.Command("ffmpeg", "-hide_banner", "-nostdin", "-i", file, "-f", "rawvideo", "-pix_fmt", "yuv420p", "-s", fmt.Sprintf("%dx%d", o.Width, o.Height), "-r", "30", "-i", ref,
		"-lavfi", "[0:v:0][1:v:0]ssim", "-f", "null", "-").CombinedOutput()
	if err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	i := bytes.LastIndex(out, []byte("All:"))
	var ssim float64
	if i < 0 {
		t.Fatalf("no SSIM in %s", out)
	}
	if _, err := fmt.Sscanf(string(out[i:]), "All:%f", &ssim); err != nil || ssim < 0.98 {
		t.Errorf("SSIM %v, want 0.98 or more", ssim)
	}
}

func TestGIFReadsBackAsTheRenderedFrames(t *testing.T) {
	f, files := opener(t)
	out := filepath.Join(t.TempDir(), "film.gif")
	w, h := delivery.Size(&f.Doc.Film, 180)
	o := export.Options{Format: "gif", Width: w, Height: h, RateNum: 15, RateDen: 1, EndPause: 1500}
	if err := export.Make(context.Background(), f, files, o, out, none); err != nil {
		t.Fatal(err)
	}
	file, err := os.Open(out)
	if err != nil {
		t.Fatal(err)
	}
	defer file.Close()
	g, err := gif.DecodeAll(file)
	if err != nil {
		t.Fatal(err)
	}
	sum := 0
	for _, d := range g.Delay {
		sum += d
	}
	if want := int(f.Order.Length/10) + 150; sum != want {
		t.Errorf("it lasts %d hundredths, want %d", sum, want)
	}
	// ffmpeg lays the frames out at the film's rate; each is held against ours.
	raw, err := exec.Command("ffmpeg", "-v", "error", "-nostdin", "-i", out, "-r", "15", "-f", "rawvideo", "-pix_fmt", "rgba", "-").Output()
	if err != nil {
		t.Fatal(err)
	}
	p, painter := f.Player(), raster.NewPainter(f, files.Pixels)
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for _, k := range []int64{0, 20, 45, 75, 90, 110, 140, 160} {
		if err := painter.Paint(img, p.At(motion.FrameTime(k, 15, 1), frame.View{Scale: 1.0 / 6})); err != nil {
			t.Fatal(err)
		}
		shown := raw[int(k)*w*h*4:]
		total := 0.0
		for i := range img.Pix {
			total += math.Abs(float64(img.Pix[i]) - float64(shown[i]))
		}
		if mean := total / float64(len(img.Pix)); mean > 3 {
			t.Errorf("frame %d is %.2f off in the mean", k, mean)
		}
	}
}

func TestCancelledExportsLeaveNoHalfFile(t *testing.T) {
	f, files := opener(t)
	dir := t.TempDir()
	for _, format := range []string{"mp4", "gif"} {
		ctx, cancel := context.WithCancel(context.Background())
		o := export.Options{Format: format, Width: 480, Height: 270, RateNum: 30, RateDen: 1}
		err := export.Make(ctx, f, files, o, filepath.Join(dir, "film."+format), func(done, _ int64) {
			if done == 5 {
				cancel()
			}
		})
		cancel()
		if !errors.Is(err, context.Canceled) {
			t.Errorf("%s: %v", format, err)
		}
	}
	if left, _ := filepath.Glob(filepath.Join(dir, "*")); len(left) > 0 {
		t.Errorf("left behind: %v", left)
	}
	if left, _ := filepath.Glob(filepath.Join(dir, ".*")); len(left) > 0 {
		t.Errorf("left behind: %v", left)
	}
}

func TestWithoutFFmpegItIsSaidInWords(t *testing.T) {
	f, files := opener(t)
	t.Setenv("PATH", t.TempDir())
	dir := t.TempDir()
	err := export.Make(context.Background(), f, files, export.Options{Format: "mp4", Width: 480, Height: 270, RateNum: 30, RateDen: 1}, filepath.Join(dir, "film.mp4"), none)
	if err == nil || !strings.Contains(err.Error(), "Install it, or export a GIF") {
		t.Errorf("got %v", err)
	}
	if err := export.Make(context.Background(), f, files, export.Options{Format: "gif", Width: 160, Height: 90, RateNum: 5, RateDen: 1}, filepath.Join(dir, "film.gif"), none); err != nil {
		t.Errorf("a GIF needs no ffmpeg: %v", err)
	}
}

// fakeFFmpeg puts a program in place of ffmpeg that knows x264 and otherwise does what the script says.
func fakeFFmpeg(t *testing.T, script string) {
	t.Helper()
	bin := t.TempDir()
	if err := os.WriteFile(filepath.Join(bin, "ffmpeg"), []byte("#!/bin/sh\ncase \"$*\" in *-encoders*) echo ' V....D libx264 '; exit 0;; esac\n"+script+"\n"), 0o755); err != nil {
		t.Fatal(err)
	}
	t.Setenv("PATH", bin+":"+os.Getenv("PATH"))
}

func TestAFailingEncoderLeavesItsLastWords(t *testing.T) {
	f, files := opener(t)
	for script, say := range map[string]string{
		"echo 'Unknown encoder libx264' >&2; exit 1":                  "has no x264",
		"echo 'av_write: No space left on device' >&2; exit 1":        "The disk is full",
		"head -c 100000 >/dev/null; kill -9 $$":                       "ended from outside",
		"head -c 100000 >/dev/null; echo 'something new' >&2; exit 1": "could not be made",
	} {
		fakeFFmpeg(t, script)
		dir := t.TempDir()
		err := export.Make(context.Background(), f, files, export.Options{Format: "mp4", Width: 480, Height: 270, RateNum: 30, RateDen: 1}, filepath.Join(dir, "film.mp4"), none)
		var failed *words.Fault
		if !errors.As(err, &failed) || !strings.Contains(failed.Happened, say) || !strings.Contains(failed.Kept, "Nothing was written") || failed.Detail == "" {
			t.Errorf("%s: got %v", script, err)
		}
		if left, _ := os.ReadDir(dir); len(left) > 0 {
			t.Errorf("left behind: %v", left)
		}
	}
}

func TestAnFFmpegWithoutX264IsTold(t *testing.T) {
	bin := t.TempDir()
	if err := os.WriteFile(filepath.Join(bin, "ffmpeg"), []byte("#!/bin/sh\necho ' V....D mpeg4 '\n"), 0o755); err != nil {
		t.Fatal(err)
	}
	t.Setenv("PATH", bin)
	if err := export.Able("mp4"); err == nil || !strings.Contains(err.Error(), "no x264") {
		t.Errorf("got %v", err)
	}
}

// A still is the film's frame at its time, read back by Go's decoder, and clear where the page is.
func TestAStillIsTheFrame(t *testing.T) {
	f, files := opener(t)
	out := filepath.Join(t.TempDir(), "still.png")
	if err := export.Make(context.Background(), f, files, export.Options{Format: "png", Width: 480, Height: 270, From: 7100}, out, none); err != nil {
		t.Fatal(err)
	}
	raw, err := os.Open(out)
	if err != nil {
		t.Fatal(err)
	}
	defer raw.Close()
	got, err := png.Decode(raw)
	if err != nil {
		t.Fatal(err)
	}
	want := image.NewRGBA(image.Rect(0, 0, 480, 270))
	if err := raster.NewPainter(f, files.Pixels).Paint(want, f.Player().At(motion.Millis(7100), frame.View{Scale: 0.25})); err != nil {
		t.Fatal(err)
	}
	for y := 0; y < 270; y += 7 {
		for x := 0; x < 480; x += 7 {
			r, g, b, a := got.At(x, y).RGBA()
			p := want.RGBAAt(x, y)
			if uint8(r>>8) != p.R || uint8(g>>8) != p.G || uint8(b>>8) != p.B || uint8(a>>8) != p.A {
				t.Fatalf("at %d, %d: %v, want %v", x, y, got.At(x, y), p)
			}
		}
	}
	p := doc.NewProject("p", "p", 40, 30, "s")
	p.Film.Scenes[0].Background = doc.Fill{Kind: doc.NoFill}
	b, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	bare, err := frame.Compile(p, frame.Assets{Fonts: b}, nil)
	if err != nil {
		t.Fatal(err)
	}
	if err := export.Make(context.Background(), bare, nil, export.Options{Format: "png", Width: 40, Height: 30}, out, none); err != nil {
		t.Fatal(err)
	}
	again, err := os.Open(out)
	if err != nil {
		t.Fatal(err)
	}
	defer again.Close()
	if m, err := png.Decode(again); err != nil {
		t.Fatal(err)
	} else if _, _, _, a := m.At(5, 5).RGBA(); a != 0 {
		t.Error("a page without a ground is not clear")
	}
}

// The demo film painted by damage is the demo film painted whole, byte for byte, frame after frame.
func TestTheDemoByDamageIsTheDemo(t *testing.T) {
	f, files := opener(t)
	const w, h = 480, 270
	canvas := raster.NewCanvas(raster.NewPainter(f, files.Pixels), w, h)
	whole, painter, player := image.NewRGBA(image.Rect(0, 0, w, h)), raster.NewPainter(f, files.Pixels), f.Player()
	share, n := 0.0, f.Frames()
	for k := int64(0); k < n; k += 2 {
		list := player.At(motion.FrameTime(k, 30, 1), frame.View{Scale: 0.25})
		if err := errors.Join(canvas.Show(list), painter.Paint(whole, list)); err != nil {
			t.Fatal(err)
		}
		if !bytes.Equal(canvas.Image().Pix, whole.Pix) {
			t.Fatalf("frame %d differs", k)
		}
		share += canvas.Damage().Share()
	}
	t.Logf("%.0f %% of all tiles were painted", 200*share/float64(n))
}

// Frames that show the same are rendered once and written as often as they last.
func TestFramesThatRestAreRenderedOnce(t *testing.T) {
	p := doc.NewProject("p", "p", 64, 64, "s")
	p.Film.Scenes[0].Stay = 2000
	p.Film.Scenes[0].Layers = []*doc.Layer{{
		ID: "a", Thread: "a", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 32, Y: 32, W: 20, H: 20},
		Moves: []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: effect.Fade, Duration: 500, Start: doc.Start{When: doc.AtTime, Offset: 1000}}},
	}}
	b, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: b}, nil)
	if err != nil {
		t.Fatal(err)
	}
	dir := t.TempDir()
	o := export.Options{Format: "gif", Width: 64, Height: 64, RateNum: 10, RateDen: 1}
	if err := export.Make(context.Background(), f, nil, o, filepath.Join(dir, "film.gif"), none); err != nil {
		t.Fatal(err)
	}
	raw, err := os.Open(filepath.Join(dir, "film.gif"))
	if err != nil {
		t.Fatal(err)
	}
	defer raw.Close()
	g, err := gif.DecodeAll(raw)
	if err != nil {
		t.Fatal(err)
	}
	// Nothing for a second, five steps of the fade, then rest: the first picture and the last last long.
	if n := len(g.Image); n < 5 || n > 7 || g.Delay[0] < 100 || g.Delay[n-1] < 50 {
		t.Errorf("%d pictures with delays %v", n, g.Delay)
	}
	if box := g.Image[2].Bounds(); !box.In(image.Rect(20, 20, 44, 44)) {
		t.Errorf("a picture of the fade covers %v, more than what fades", box)
	}
	o.Format, o.RateNum = "mp4", 25
	if err := export.Make(context.Background(), f, nil, o, filepath.Join(dir, "film.mp4"), none); err != nil {
		t.Fatal(err)
	}
	if s := probe(t, filepath.Join(dir, "film.mp4")); s["nb_read_frames"] != "50" {
		t.Errorf("%v frames in the file, want 50", s["nb_read_frames"])
	}
}

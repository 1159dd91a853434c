package api_test

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"
)

// A video that was made gets the sound of the film as it is now with its pictures untouched, packet by packet; where these have changed it is refused in words.
func TestAnExportGetsNewSound(t *testing.T) {
	s := start(t)
	go s.api.Queue().Run(t.Context())
	id := s.project(t)
	s.command(id, 0, `{"op":"scene.set","ids":["`+s.scene(id)+`"],"patch":{"stay":1000}}`)
	ask := func(path, body string, want int) map[string]any {
		t.Helper()
		status, v := s.ask("POST", path, []byte(body))
		if status != want {
			t.Fatalf("%s: %d %v", path, status, v)
		}
		return v
	}
	tone := filepath.Join(t.TempDir(), "a.wav")
	if out, err := exec.Command("ffmpeg", "-loglevel", "error", "-f", "lavfi", "-i", "sine=frequency=440:duration=1", tone).CombinedOutput(); err != nil {
		t.Fatal(string(out))
	}
	wav, _ := os.ReadFile(tone)
	sound := ask("/api/sounds?name=a.wav", string(wav), 201)
	facts, _ := json.Marshal(sound["media"])
	hash := sound["hash"].(string)
	fetched := func(export string) string {
		t.Helper()
		s.until(export+" is done", func() bool {
			e := s.exports(id)[export]
			if e["state"] == "failed" {
				t.Fatal(e["message"])
			}
			return e["state"] == "done"
		})
		r, err := s.c.Get(s.url + "/api/exports/" + export + "/file")
		if err != nil {
			t.Fatal(err)
		}
		defer r.Body.Close()
		file := filepath.Join(t.TempDir(), "out")
		f, _ := os.Create(file)
		f.ReadFrom(r.Body)
		f.Close()
		return file
	}
	streams := func(file string) (pictures, kinds string) {
		out, err := exec.Command("ffmpeg", "-loglevel", "error", "-i", file, "-map", "0:v:0", "-c", "copy", "-f", "framemd5", "-").Output()
		if err != nil {
			t.Fatal(err)
		}
		for _, line := range strings.Split(string(out), "\n") {
			if cells := strings.Split(line, ","); !strings.HasPrefix(line, "#") && len(cells) == 6 { // without times: in WebM all begin when the sound does
				pictures += cells[4] + cells[5] + "\n"
			}
		}
		list, _ := exec.Command("ffprobe", "-v", "error", "-show_entries", "stream=codec_name", "-of", "csv=p=0", file).Output()
		all := strings.Fields(string(list))
		slices.Sort(all)
		return pictures, strings.Join(all, " ")
	}
	for i, c := range []struct{ format, silent, heard string }{{"mp4", "h264 mjpeg", "aac h264 mjpeg"}, {"webm", "vp9", "opus vp9"}} {
		first, name := s.export(id, `{"format":"`+c.format+`","height":48}`)
		file := fetched(first)
		pictures, kinds := streams(file)
		if kinds != c.silent {
			t.Errorf("without a sound it is %s", kinds)
		}
		revision := 1 + 3*i
		s.command(id, revision, fmt.Sprintf(`{"op":"batch","commands":[{"op":"media.add","hash":%q,"media":%s},{"op":"sound.add","scene":"","sounds":[{"id":"tone%d","name":"Tone","media":%q,"use":"music","start":{"when":"at"},"length":1000}]}]}`, hash, facts, i, hash))
		v := ask("/api/exports/"+first+"/sound", `{}`, 201)
		if v["name"] == name {
			t.Errorf("both are called %s", name)
		}
		anew := v["id"].(string)
		same, kinds := streams(fetched(anew))
		if same != pictures || kinds != c.heard {
			t.Errorf("%s has become %s, its packets the same: %v", c.format, kinds, same == pictures)
		}
		if again, kinds := streams(fetched(ask("/api/exports/"+anew+"/sound", `{}`, 201)["id"].(string))); again != pictures || kinds != c.heard {
			t.Errorf("once more it has become %s", kinds)
		}
		if status, v := s.ask("GET", "/api/exports/"+anew+"/compare?frame=1", nil); status != 200 || v["ssim"].(float64) < 0.99 {
			t.Errorf("beside the page: %d %v", status, v["ssim"])
		}
		s.command(id, revision+1, fmt.Sprintf(`{"op":"scene.set","ids":[%q],"patch":{"background":{"kind":"colour","colour":"#%d4060"}}}`, s.scene(id), 20+i))
		if v := ask("/api/exports/"+first+"/sound", `{}`, 422); !strings.Contains(fmt.Sprint(v), "have changed") {
			t.Errorf("with other pictures it says %v", v)
		}
		s.command(id, revision+2, fmt.Sprintf(`{"op":"sound.delete","ids":["tone%d"]}`, i))
	}
	still, _ := s.export(id, `{"format":"png","height":48}`)
	fetched(still)
	ask("/api/exports/"+still+"/sound", `{}`, 422)
	ask("/api/exports/none/sound", `{}`, 404)
	if status, v := s.ask("POST", "/api/projects/"+id+"/exports", []byte(`{"format":"mp4","height":48,"pictures":"../../etc/passwd"}`)); status == 201 {
		s.until("it fails", func() bool { return s.exports(id)[v["id"].(string)]["state"] == "failed" })
	}
}

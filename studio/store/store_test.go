package store_test

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/glebarez/sqlite"
	"gorm.io/gorm"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/text"
	"capstan/core/words"
	"capstan/studio/budget"
	"capstan/studio/store"
)

var assets = frame.Assets{Fonts: &text.Book{}}

func open(t *testing.T, dir string) *store.Store {
	t.Helper()
	s, err := store.Open(dir, assets)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	return s
}

func rename(n int) edit.Command { return &edit.RenameProject{Name: fmt.Sprintf("name %d", n)} }

// sent is a command as it comes over the wire.
func sent(format string, args ...any) edit.Command {
	c, err := edit.Read(fmt.Appendf(nil, format, args...))
	if err != nil {
		panic(err)
	}
	return c
}

func TestWhatWasAcknowledgedReopens(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	// Over two snapshots and some changes on top.
	for n := int64(0); n < 123; n++ {
		c, err := s.Apply("p", n, "w", fmt.Sprint("c", n), rename(int(n)))
		if err != nil || c.Revision != n+1 {
			t.Fatalf("%d: %v", n, err)
		}
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	again := open(t, dir)
	p, rev, err := again.Load("p")
	if err != nil || rev != 123 || p.Name != "name 122" {
		t.Fatalf("revision %d, %q, %v", rev, p.Name, err)
	}
	list, err := again.Projects()
	if err != nil || len(list) != 1 || list[0].Name != "name 122" || list[0].Revision != 123 || list[0].Length != 4000 {
		t.Errorf("the list says %+v, %v", list, err)
	}
}

func TestARepeatedCommandIsCarriedOutOnce(t *testing.T) {
	s := open(t, t.TempDir())
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	add := &edit.AddScene{ID: "new", Index: 1, Name: "New"}
	a, err := s.Apply("p", 0, "w", "same", add)
	if err != nil {
		t.Fatal(err)
	}
	b, err := s.Apply("p", 0, "w", "same", add) // the answer was lost; the page asks again
	if err != nil || b.Revision != a.Revision {
		t.Errorf("%+v, %v", b, err)
	}
	if p, rev, _ := s.Load("p"); rev != 1 || len(p.Film.Scenes) != 2 {
		t.Errorf("revision %d with %d scenes", rev, len(p.Film.Scenes))
	}
}

func TestStaleCommandsGetWhatHappenedSince(t *testing.T) {
	s := open(t, t.TempDir())
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	for n := int64(0); n < 3; n++ {
		if _, err := s.Apply("p", n, "one", fmt.Sprint(n), rename(int(n))); err != nil {
			t.Fatal(err)
		}
	}
	_, err := s.Apply("p", 1, "two", "x", rename(9))
	var stale *store.Stale
	if !errors.As(err, &stale) || stale.Revision != 3 || len(stale.Since) != 2 || stale.Since[0].Revision != 2 || len(stale.Since[1].Patch) < 10 {
		t.Fatalf("%+v, %v", stale, err)
	}
	if p, _, _ := s.Load("p"); p.Name != "name 2" {
		t.Errorf("the stale command was carried out: %q", p.Name)
	}
}

func TestARefusedCommandLeavesNoTrace(t *testing.T) {
	s := open(t, t.TempDir())
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Apply("p", 0, "w", "x", &edit.DeleteScenes{IDs: []string{"s"}}); err == nil {
		t.Fatal("the last scene was deleted")
	}
	if _, rev, err := s.Load("p"); rev != 0 || err != nil {
		t.Errorf("revision %d, %v", rev, err)
	}
	if _, err := s.Apply("q", 0, "w", "x", rename(1)); !words.Is(err, "not-found") {
		t.Errorf("got %v", err)
	}
}

func TestAFolderIsOpenedOnce(t *testing.T) {
	dir := t.TempDir()
	open(t, dir)
	_, err := store.Open(dir, assets)
	if !words.Is(err, "data.in-use") || !strings.Contains(err.Error(), fmt.Sprintf("process %d", os.Getpid())) {
		t.Errorf("got %v", err)
	}
}

// The bin keeps a project with all its changes until it is deleted for good; only then it is gone.
func TestTheBinGivesProjectsBack(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	if err := s.Delete("p"); !words.Is(err, "project.empty-bin") {
		t.Errorf("deleted for good without having been in the bin: %v", err)
	}
	if err := s.Bin("p"); err != nil {
		t.Fatal(err)
	}
	if err := s.Bin("p"); !words.Is(err, "not-found") {
		t.Errorf("binned twice: %v", err)
	}
	// A window that has it open goes on.
	if _, err := s.Apply("p", 0, "w", "c", rename(7)); err != nil {
		t.Errorf("a change in the bin: %v", err)
	}
	s.Close()
	s = open(t, dir)
	if list, _ := s.Projects(); len(list) != 0 {
		t.Errorf("the list still has %v", list)
	}
	if list, _ := s.Binned(); len(list) != 1 || list[0].Name != "name 7" || list[0].BinnedAt == nil {
		t.Errorf("the bin has %+v", list)
	}
	if err := s.Restore("p"); err != nil {
		t.Fatal(err)
	}
	if p, rev, err := s.Load("p"); err != nil || rev != 1 || p.Name != "name 7" {
		t.Errorf("restored at revision %d: %v", rev, err)
	}
	if list, _ := s.Projects(); len(list) != 1 || list[0].BinnedAt != nil {
		t.Errorf("restored, the list has %+v", list)
	}
	if err := errors.Join(s.Bin("p"), s.Delete("p")); err != nil {
		t.Fatal(err)
	}
	if _, _, err := s.Load("p"); !words.Is(err, "not-found") {
		t.Errorf("deleted for good: %v", err)
	}
}

// A name is a revision: windows that have the project open learn of it, and it survives.
func TestRenamingIsARevision(t *testing.T) {
	s := open(t, t.TempDir())
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	if c, err := s.Rename("p", " Tide table "); err != nil || c.Revision != 1 {
		t.Fatalf("%+v %v", c, err)
	}
	if list, _ := s.Projects(); list[0].Name != "Tide table" || list[0].Revision != 1 {
		t.Errorf("the list says %+v", list[0])
	}
	if _, err := s.Rename("p", "  "); err == nil {
		t.Error("a project lost its name")
	}
}

func TestExportsSurviveARestart(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	for i, state := range []string{store.Done, store.Running, store.Waiting} {
		if err := s.AddExport(&store.Export{ID: fmt.Sprint(i), State: state, FramesDone: 7}); err != nil {
			t.Fatal(err)
		}
	}
	s.Close()
	s = open(t, dir)
	if err := s.RequeueExports(); err != nil {
		t.Fatal(err)
	}
	e, err := s.Export("1")
	if err != nil || e.State != store.Waiting || e.FramesDone != 0 {
		t.Errorf("the one that ran: %+v, %v", e, err)
	}
	if e, _ := s.Export("0"); e.State != store.Done {
		t.Error("the one that was done is made again")
	}
	// Running again when it stops again, it may be what stopped it.
	e.State = store.Running
	if err := errors.Join(s.SaveExport(e), s.RequeueExports()); err != nil {
		t.Fatal(err)
	}
	if e, _ := s.Export("1"); e.State != store.Failed || !strings.Contains(e.Message, "twice") {
		t.Errorf("the one that ran both times: %+v", e)
	}
}

// A damaged database is told before anything is changed, and a folder that is open elsewhere says where.
func TestDamageAndASecondStartAreTold(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	for i := range 40 {
		if _, err := s.Create(doc.NewProject(fmt.Sprint("p", i), "p", 320, 240, "s")); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.ServedAt("http://127.0.0.1:9"); err != nil {
		t.Fatal(err)
	}
	if _, err := store.Open(dir, assets); !words.Is(err, "data.in-use") || !strings.Contains(err.Error(), "http://127.0.0.1:9") {
		t.Errorf("a second start: %v", err)
	}
	s.Close()
	file := filepath.Join(dir, "capstan.db")
	raw, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	for i := 4096; i < len(raw); i += 4096 {
		raw[i+3] ^= 0x5A // how many cells a page has
	}
	if err := os.WriteFile(file, raw, 0o644); err != nil {
		t.Fatal(err)
	}
	if _, err := store.Open(dir, assets); !words.Is(err, "data.damaged") || !strings.Contains(err.Error(), "Nothing was changed") {
		t.Errorf("a damaged database: %v", err)
	}
	if after, _ := os.ReadFile(file); string(after) != string(raw) {
		t.Error("the damaged file was changed")
	}
}

// The length in the list is that of the film that would be exported: waits at cues and the closing transition are part of it.
func TestTheListTellsTheLengthOfTheFilm(t *testing.T) {
	s := open(t, t.TempDir())
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	for n, c := range []struct {
		command string
		length  int64
	}{
		{`{"op":"film.set","patch":{"loop":true,"closing":{"kind":"crossfade","duration":700}}}`, 4700},
		{`{"op":"cue.add","scene":"s","id":"q","name":"now","at":1000,"wait":500}`, 5200},
		{`{"op":"scene.set","ids":["s"],"patch":{"endsAtCue":"q"}}`, 2200},
	} {
		if _, err := s.Apply("p", int64(n), "w", fmt.Sprint("c", n), sent("%s", c.command)); err != nil {
			t.Fatalf("%s: %v", c.command, err)
		}
		p, _, err := s.Load("p")
		if err != nil {
			t.Fatal(err)
		}
		film, err := frame.Compile(p, assets, nil)
		if err != nil {
			t.Fatal(err)
		}
		list, err := s.Projects()
		if err != nil || list[0].Length != film.Order.Length || list[0].Length != c.length {
			t.Errorf("after %s the list says %d ms, the film has %d, %v", c.command, list[0].Length, film.Order.Length, err)
		}
	}
}

// A snapshot that cannot be read is passed over: the one before it and all changes since lead to the same document. Of changes that are long past
// only the ids stay, so that a repeated command is still known; who asks for them is told to load the document. What commands mean today has no say.
func TestDamagedSnapshotsAndOldChanges(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	const n = 1110
	for i := range n {
		if _, err := s.Apply("p", int64(i), "w", fmt.Sprint("c", i), rename(i)); err != nil {
			t.Fatal(err)
		}
	}
	if list, now, more, err := s.Since("p", n-3); len(list) != 3 || now != n || more || err != nil {
		t.Errorf("the last three: %d, %d, %v, %v", len(list), now, more, err)
	}
	for _, base := range []int64{-1, 0, 50, n - budget.Told - 1} {
		if list, now, more, err := s.Since("p", base); len(list) != 0 || now != n || !more || err != nil {
			t.Errorf("since %d: %d changes, %d, %v, %v", base, len(list), now, more, err)
		}
	}
	s.Close()
	db, err := gorm.Open(sqlite.Open(filepath.Join(dir, "capstan.db")))
	if err != nil {
		t.Fatal(err)
	}
	var kept int64
	db.Model(&store.Change{}).Where("length(command) > 0").Count(&kept)
	if kept > n-100 || kept < 1000 {
		t.Errorf("%d changes are kept whole", kept)
	}
	if r := db.Exec("UPDATE snapshots SET document = ? WHERE revision = (SELECT max(revision) FROM snapshots)", []byte(`{"version":1,`)); r.Error != nil || r.RowsAffected != 1 {
		t.Fatal(r.Error, r.RowsAffected)
	}
	// Whatever commands are called, or do, today: the patches are what opens.
	if r := db.Exec(`UPDATE changes SET command = '{"op":"of another day"}' WHERE length(command) > 0`); r.Error != nil || r.RowsAffected < 1000 {
		t.Fatal(r.Error, r.RowsAffected)
	}
	sql, _ := db.DB()
	sql.Close()
	s = open(t, dir)
	if p, rev, err := s.Load("p"); err != nil || rev != n || p.Name != fmt.Sprint("name ", n-1) {
		t.Errorf("after the newest snapshot was damaged: %d, %v", rev, err)
	}
	if c, err := s.Apply("p", 4, "w", "c4", rename(4)); c.Revision != 5 && err == nil {
		t.Errorf("a command of long ago was repeated: %+v", c)
	}
}

// The data folder is its owner's alone, also one that was made before.
func TestTheDataFolderIsItsOwnersAlone(t *testing.T) {
	dir := t.TempDir()
	if err := os.Chmod(dir, 0o755); err != nil {
		t.Fatal(err)
	}
	open(t, dir)
	for name, want := range map[string]os.FileMode{"": 0o700, "capstan.db": 0o600, "lock": 0o600, "media": 0o700, "tmp": 0o700} {
		info, err := os.Stat(filepath.Join(dir, name))
		if err != nil || info.Mode().Perm() != want {
			t.Errorf("%q: %v, %v", name, info.Mode().Perm(), err)
		}
	}
}

// What an older version stored opens: the snapshot and the patches on it are lifted.
func TestWorkOfAnOlderVersionOpens(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	db, err := gorm.Open(sqlite.Open(filepath.Join(dir, "capstan.db")))
	if err != nil {
		t.Fatal(err)
	}
	move := `{"id":"m","kind":"entrance","effect":"slide","start":{"when":"at"},"duration":600,"slide":{"distance":80}}`
	raw := `{"version":1,"id":"old","name":"Old","film":{"width":320,"height":240,"rate":{"num":30,"den":1},"scenes":[
		{"id":"s","name":"s","stay":2000,"transition":{"kind":"cut"},"background":{"kind":"none"},"layers":[
			{"id":"l","thread":"l","name":"l","kind":"ellipse","opacity":1,"place":{"x":1,"y":2},"fill":{"kind":"none"},"moves":[` + move + `]}]}]}}`
	later := strings.Replace(move, `"distance":80`, `"direction":90,"distance":80`, 1)
	patch := fmt.Sprintf(`[{"part":"layer/s/l","field":"moves","before":[%s],"after":[%s]}]`, move, later)
	err = errors.Join(db.Create(&store.Project{ID: "old", Name: "Old", Revision: 1}).Error, db.Create(&store.Snapshot{ProjectID: "old", Document: []byte(raw)}).Error,
		db.Create(&store.Change{ProjectID: "old", Revision: 1, CommandID: "c", Command: []byte(`{}`), Patch: []byte(patch), Format: 1}).Error)
	if err != nil {
		t.Fatal(err)
	}
	p, revision, err := open(t, dir).Load("old")
	if err != nil {
		t.Fatal(err)
	}
	if m := p.Film.Scenes[0].Layers[0].Moves[0]; revision != 1 || p.Version != doc.Version || m.Params.Number("direction") != 90 || m.Params.Number("distance") != 80 {
		t.Errorf("at %d it is %+v", revision, m)
	}
}

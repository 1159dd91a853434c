package store_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/glebarez/sqlite"
	"gorm.io/gorm"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/store"
)

var hash = strings.Repeat("ab", 32)

func withMedia(id string) *doc.Project {
	p := doc.NewProject(id, id, 320, 240, "s")
	p.Media = map[string]*doc.Media{hash: {Name: "sky.png", Type: "image/png", Bytes: 9, Width: 8, Height: 8}}
	return p
}

func TestAStageKeepsTheProjectAsItWas(t *testing.T) {
	s := open(t, t.TempDir())
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Apply("p", 0, "w", "a", rename(1)); err != nil {
		t.Fatal(err)
	}
	stage, err := s.KeepStage("p", "g", " before ")
	if err != nil || stage.Name != "before" || stage.Revision != 1 || stage.Scenes != 1 || stage.Length != 4000 {
		t.Fatalf("%+v, %v", stage, err)
	}
	if _, err := s.Apply("p", 1, "w", "b", rename(2)); err != nil {
		t.Fatal(err)
	}
	list, err := s.Stages("p")
	if err != nil || len(list) != 1 || list[0].Document != nil {
		t.Errorf("the list: %+v, %v", list, err)
	}
	if _, p, err := s.Stage("g"); err != nil || p.Name != "name 1" {
		t.Errorf("the stage holds %v, %v", p, err)
	}
	if _, err := s.KeepStage("p", "h", "  "); !words.Is(err, "stage.name") {
		t.Errorf("a stage without a name: %v", err)
	}
	if err := s.RenameStage("g", "earlier"); err != nil {
		t.Error(err)
	}
	if err := s.RenameStage("nobody", "x"); !words.Is(err, "stage.gone") {
		t.Errorf("renaming what is not there: %v", err)
	}
	// It goes with its project, and not before that is deleted for good.
	if err := s.Bin("p"); err != nil {
		t.Fatal(err)
	}
	if g, _, err := s.Stage("g"); err != nil || g.Name != "earlier" {
		t.Errorf("in the bin: %v", err)
	}
	if err := s.Delete("p"); err != nil {
		t.Fatal(err)
	}
	if _, _, err := s.Stage("g"); !words.Is(err, "stage.gone") {
		t.Errorf("after its project: %v", err)
	}
}

func TestAProjectHasSoManyStagesAndNoMore(t *testing.T) {
	s := open(t, t.TempDir())
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	for i := range store.MaxStages {
		if _, err := s.KeepStage("p", fmt.Sprint("g", i), "x"); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := s.KeepStage("p", "more", "x"); !words.Is(err, "stage.many") {
		t.Errorf("one more: %v", err)
	}
}

// A file is used as long as a project is there that ever had it: undo and stages may need it.
func TestUsesOfMediaAreCounted(t *testing.T) {
	s := open(t, t.TempDir())
	uses := func(want int) {
		t.Helper()
		if u, err := s.Uses(); err != nil || u[hash] != want {
			t.Errorf("used by %d projects, want %d (%v)", u[hash], want, err)
		}
	}
	if _, err := s.Create(withMedia("p")); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Create(doc.NewProject("q", "q", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	uses(1)
	facts, _ := json.Marshal(withMedia("p").Media[hash])
	c := &edit.AddMedia{Hash: hash, Media: withMedia("p").Media[hash]}
	if _, err := s.Apply("q", 0, "w", "a", c); err != nil {
		t.Fatal(err)
	}
	uses(2)
	back := sent(`{"op":"patch","changes":[{"part":"project","field":"media","before":{%q:%s},"after":null}]}`, hash, facts)
	if _, err := s.Apply("q", 1, "w", "b", back); err != nil {
		t.Fatal(err)
	}
	uses(2) // redo would need it
	for _, id := range []string{"p", "q"} {
		if err := s.Bin(id); err != nil {
			t.Fatal(err)
		}
	}
	uses(2)
	if err := s.Delete("p"); err != nil {
		t.Fatal(err)
	}
	uses(1)
}

func raw(t *testing.T, dir string) *gorm.DB {
	t.Helper()
	db, err := gorm.Open(sqlite.Open("file:" + filepath.Join(dir, "capstan.db")))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { closeDB(db) })
	return db
}

func closeDB(db *gorm.DB) {
	if sql, err := db.DB(); err == nil {
		sql.Close()
	}
}

// A folder of before stages and counted media is brought up to date, with a copy of it put beside.
func TestAnOlderFolderIsBroughtUpToDate(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	if _, err := s.Create(withMedia("p")); err != nil {
		t.Fatal(err)
	}
	s.Close()
	db := raw(t, dir)
	for _, q := range []string{"DROP TABLE stages", "DROP TABLE media_uses", "ALTER TABLE exports DROP COLUMN end_pause", "DELETE FROM migrations WHERE id >= '0004'"} {
		if err := db.Exec(q).Error; err != nil {
			t.Fatal(err)
		}
	}
	closeDB(db)
	s = open(t, dir)
	if u, err := s.Uses(); err != nil || u[hash] != 1 {
		t.Errorf("uses %v, %v", u, err)
	}
	if _, err := s.KeepStage("p", "g", "x"); err != nil {
		t.Error(err)
	}
	s.Close()
	if copies, _ := filepath.Glob(filepath.Join(dir, "capstan.db.before-0004")); len(copies) != 1 {
		t.Errorf("copies: %v", copies)
	}
	// One that a newer Capstan has written is not touched.
	db = raw(t, dir)
	if err := db.Exec("INSERT INTO migrations (id) VALUES ('9999')").Error; err != nil {
		t.Fatal(err)
	}
	closeDB(db)
	if _, err := store.Open(dir, assets); !words.Is(err, "data.newer") {
		t.Errorf("a newer folder: %v", err)
	}
}

// A disk that fills up while a change is stored: the change is refused, all that was stored stays, and work goes on when there is
// room again. SQLite says the same (SQLITE_FULL) when the disk is full and when its own limit of pages is reached.
func TestAFullDiskLosesNothing(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	if err := s.LimitPages(1); err != nil {
		t.Fatal(err)
	}
	long := strings.Repeat("long ", 2000)
	var full error
	rev := int64(0)
	for i := 0; full == nil && i < 100; i++ {
		var c store.Change
		if c, full = s.Apply("p", rev, "w", fmt.Sprint(i), &edit.RenameProject{Name: fmt.Sprintf("%s%d", long[:150], i)}); full == nil {
			rev = c.Revision
		}
	}
	if !aside.Full(full) {
		t.Fatalf("the disk never was full: %v", full)
	}
	if _, now, err := s.Load("p"); err != nil || now != rev {
		t.Errorf("revision %d in memory, %d was acknowledged (%v)", now, rev, err)
	}
	if err := s.LimitPages(1 << 30); err != nil {
		t.Fatal(err)
	}
	if c, err := s.Apply("p", rev, "w", "again", rename(7)); err != nil || c.Revision != rev+1 {
		t.Errorf("with room again: %v", err)
	}
	s.Close()
	if p, now, err := open(t, dir).Load("p"); err != nil || now != rev+1 || p.Name != "name 7" {
		t.Errorf("reopened at revision %d: %v", now, err)
	}
}

func TestOnlyTheLastSnapshotsAreKept(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
		t.Fatal(err)
	}
	for n := int64(0); n < 260; n++ {
		if _, err := s.Apply("p", n, "w", fmt.Sprint("c", n), rename(int(n))); err != nil {
			t.Fatal(err)
		}
	}
	s.Close()
	var revisions []int64
	db := raw(t, dir)
	if err := db.Table("snapshots").Order("revision").Pluck("revision", &revisions).Error; err != nil || fmt.Sprint(revisions) != "[150 200 250]" {
		t.Errorf("snapshots at %v, %v", revisions, err)
	}
	closeDB(db)
	if p, rev, err := open(t, dir).Load("p"); err != nil || rev != 260 || p.Name != "name 259" {
		t.Errorf("revision %d, %v", rev, err)
	}
}

// What a kill left half written is cleared, and nothing else.
func TestLeftoversAreCleared(t *testing.T) {
	dir := t.TempDir()
	open(t, dir).Close()
	half := filepath.Join(dir, "exports", strings.Replace(aside.Pattern, "*", "123", 1)+".mp4")
	whole := filepath.Join(dir, "exports", "e.mp4")
	for _, f := range []string{half, whole} {
		if err := os.WriteFile(f, []byte("x"), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	open(t, dir)
	if _, err := os.Stat(half); !os.IsNotExist(err) {
		t.Error("half a file is still there")
	}
	if _, err := os.Stat(whole); err != nil {
		t.Error(err)
	}
}

// A database that does not know the media beside it, since it is new or was put back from a copy, is told and not opened; asked to, it is
// taken as it is. No picture goes in any case.
func TestAnotherOrOlderDatabaseIsTold(t *testing.T) {
	dir := t.TempDir()
	file := filepath.Join(dir, "capstan.db")
	s := open(t, dir)
	picture := image.NewNRGBA(image.Rect(0, 0, 30, 20))
	var b bytes.Buffer
	if err := png.Encode(&b, picture); err != nil {
		t.Fatal(err)
	}
	hash, _, err := s.Files().Take(&b, "x.png")
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	copied, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	if err := open(t, dir).Close(); err != nil {
		t.Fatal(err)
	}
	put := func(raw []byte) {
		for _, f := range []string{file, file + "-wal", file + "-shm"} {
			os.Remove(f)
		}
		if raw != nil {
			if err := os.WriteFile(file, raw, 0o600); err != nil {
				t.Fatal(err)
			}
		}
	}
	for i, raw := range [][]byte{copied, nil} {
		key := []string{"data.older", "data.other"}[i]
		for range 2 { // also the second time
			put(raw)
			if _, err := store.Open(dir, assets); !words.Is(err, key) {
				t.Fatalf("want %s: %v", key, err)
			}
		}
		if err := store.Adopt(dir); err != nil {
			t.Fatal(err)
		}
		for range 2 {
			s, err := store.Open(dir, assets)
			if err != nil {
				t.Fatalf("after %s it was adopted: %v", key, err)
			}
			if !s.Files().Has(hash) {
				t.Error("the picture is gone")
			}
			s.Close()
		}
	}
}

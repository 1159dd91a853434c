package edit

import (
	"crypto/sha256"
	"encoding/base32"
	"strings"
)

// derive makes the id of a copy from the command's seed, the same on every machine. It must stay as it is: stored commands
// are carried out again, and later ones name what came out.
func derive(seed, id string) string {
	h := sha256.Sum256([]byte(seed + "/" + id))
	return strings.ToLower(base32.StdEncoding.EncodeToString(h[:])[:12])
}

// CopyID is the id that what a copied scene holds gets, by that of what it was.
func CopyID(seed, id string) string { return derive(seed, id) }

// CopyThread is the thread that a copy of a layer gets by layer.duplicate with a seed.
func CopyThread(seed, id string) string { return derive(seed+"/thread", id) }

package edit

import (
	"encoding/base32"
	"encoding/binary"
	"math/bits"
	"strings"
)

// derive makes the id of a copy from the command's seed, the same on every machine. It must stay as it is: stored commands
// are carried out again, and later ones name what came out.
func derive(seed, id string) string {
	h := sha256(seed + "/" + id)
	return strings.ToLower(base32.StdEncoding.EncodeToString(h[:])[:12])
}

// CopyID is the id that what a copied scene holds gets, by that of what it was.
func CopyID(seed, id string) string { return derive(seed, id) }

// CopyThread is the thread that a copy of a layer gets by layer.duplicate with a seed.
func CopyThread(seed, id string) string { return derive(seed+"/thread", id) }

// sha256 is SHA-256 (FIPS 180-4, section 6.2). The standard library's brings a cryptographic module of 55 KB into the engine,
// for ids that nobody attacks.
func sha256(s string) (sum [32]byte) {
	h := [8]uint32{0x6a09e667, 0xbb67ae85, 0x3c6ef372, 0xa54ff53a, 0x510e527f, 0x9b05688c, 0x1f83d9ab, 0x5be0cd19}
	m := append([]byte(s), 0x80)
	for len(m)%64 != 56 {
		m = append(m, 0)
	}
	m = binary.BigEndian.AppendUint64(m, uint64(len(s))*8)
	var w [64]uint32
	for ; len(m) > 0; m = m[64:] {
		for i := range 16 {
			w[i] = binary.BigEndian.Uint32(m[4*i:])
		}
		for i := 16; i < 64; i++ {
			a, b := w[i-15], w[i-2]
			w[i] = w[i-16] + (bits.RotateLeft32(a, -7) ^ bits.RotateLeft32(a, -18) ^ a>>3) + w[i-7] +
				(bits.RotateLeft32(b, -17) ^ bits.RotateLeft32(b, -19) ^ b>>10)
		}
		v := h
		for i := range 64 {
			e, a := v[4], v[0]
			t1 := v[7] + (bits.RotateLeft32(e, -6) ^ bits.RotateLeft32(e, -11) ^ bits.RotateLeft32(e, -25)) + (e&v[5] ^ ^e&v[6]) + roots[i] + w[i]
			t2 := (bits.RotateLeft32(a, -2) ^ bits.RotateLeft32(a, -13) ^ bits.RotateLeft32(a, -22)) + (a&v[1] ^ a&v[2] ^ v[1]&v[2])
			v = [8]uint32{t1 + t2, a, v[1], v[2], v[3] + t1, e, v[5], v[6]}
		}
		for i := range h {
			h[i] += v[i]
		}
	}
	for i, x := range h {
		binary.BigEndian.PutUint32(sum[4*i:], x)
	}
	return sum
}

// roots are the first 32 bits of the fractional parts of the cube roots of the first 64 primes.
var roots = [64]uint32{
	0x428a2f98, 0x71374491, 0xb5c0fbcf, 0xe9b5dba5, 0x3956c25b, 0x59f111f1, 0x923f82a4, 0xab1c5ed5, 0xd807aa98, 0x12835b01, 0x243185be,
	0x550c7dc3, 0x72be5d74, 0x80deb1fe, 0x9bdc06a7, 0xc19bf174, 0xe49b69c1, 0xefbe4786, 0x0fc19dc6, 0x240ca1cc, 0x2de92c6f, 0x4a7484aa,
	0x5cb0a9dc, 0x76f988da, 0x983e5152, 0xa831c66d, 0xb00327c8, 0xbf597fc7, 0xc6e00bf3, 0xd5a79147, 0x06ca6351, 0x14292967, 0x27b70a85,
	0x2e1b2138, 0x4d2c6dfc, 0x53380d13, 0x650a7354, 0x766a0abb, 0x81c2c92e, 0x92722c85, 0xa2bfe8a1, 0xa81a664b, 0xc24b8b70, 0xc76c51a3,
	0xd192e819, 0xd6990624, 0xf40e3585, 0x106aa070, 0x19a4c116, 0x1e376c08, 0x2748774c, 0x34b0bcb5, 0x391c0cb3, 0x4ed8aa4a, 0x5b9cca4f,
	0x682e6ff3, 0x748f82ee, 0x78a5636f, 0x84c87814, 0x8cc70208, 0x90befffa, 0xa4506ceb, 0xbef9a3f7, 0xc67178f2,
}

package musicxml

import (
	"archive/zip"
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// packed is an archive of files, by name and content in turn.
func packed(t testing.TB, files ...string) []byte {
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for i := 0; i < len(files); i += 2 {
		f, err := z.Create(files[i])
		require.NoError(t, err)
		_, err = f.Write([]byte(files[i+1]))
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return out.Bytes()
}

func list(path string) string {
	return `<container><rootfiles><rootfile full-path="cover.pdf" media-type="application/pdf"/><rootfile full-path="` + path + `" media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>`
}

func TestACompressedScoreIsRead(t *testing.T) {
	score := string(file(`<measure number="1"><attributes><divisions>1</divisions></attributes>` + aNote + `</measure>`))
	for name, data := range map[string][]byte{
		"with its list":    packed(t, "META-INF/container.xml", list("a/score.xml"), "a/other.xml", "<x/>", "a/score.xml", score),
		"without the list": packed(t, "score.musicxml", score),
	} {
		f, err := Read(t.Context(), data)
		require.NoError(t, err, name)
		require.Len(t, f.Notes, 1, name)
		assert.Equal(t, "E4", f.Notes[0].Pitch.String())
	}
	good := packed(t, "score.xml", score)
	for says, data := range map[string][]byte{
		"not in it":          packed(t, "META-INF/container.xml", list("gone.xml")),
		"no score":           packed(t, "readme.txt", "hello"),
		"cannot be unpacked": good[:len(good)-30],
		"list of this":       packed(t, "META-INF/container.xml", "<container", "score.xml", score),
		"more than can be":   packed(t, "score.xml", strings.Repeat(" ", maxUnpacked+1)),
	} {
		_, err := Read(t.Context(), data)
		assert.ErrorContains(t, err, says)
	}
}

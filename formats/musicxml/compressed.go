package musicxml

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strings"

	"undaris/core/say"
)

// maxUnpacked is the most bytes that a compressed score may unpack to.
const maxUnpacked = 16 << 20

// Compressed tells that data is a zip archive, as a .mxl file is.
func Compressed(data []byte) bool { return bytes.HasPrefix(data, []byte("PK\x03\x04")) }

// unpack takes the score out of a compressed file: the first root file that
// META-INF/container.xml names, as MusicXML 4.0 describes it.
func unpack(data []byte) ([]byte, error) {
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return nil, say.Errorf("this compressed MusicXML cannot be unpacked: %w", err)
	}
	var container struct {
		Roots []struct {
			Path string `xml:"full-path,attr"`
			Kind string `xml:"media-type,attr"`
		} `xml:"rootfiles>rootfile"`
	}
	if text, err := unpacked(archive, "META-INF/container.xml"); err == nil {
		if err := xml.Unmarshal(text, &container); err != nil {
			return nil, say.Errorf("the list of this compressed MusicXML cannot be read: %w", err)
		}
	}
	for _, root := range container.Roots {
		if root.Kind == "" || strings.Contains(root.Kind, "musicxml") {
			return unpacked(archive, root.Path)
		}
	}
	for _, f := range archive.File { // some writers leave the list out
		if !strings.HasPrefix(f.Name, "META-INF/") && (strings.HasSuffix(f.Name, ".xml") || strings.HasSuffix(f.Name, ".musicxml")) {
			return unpacked(archive, f.Name)
		}
	}
	return nil, errors.New("there is no score in this compressed MusicXML")
}

func unpacked(archive *zip.Reader, name string) ([]byte, error) {
	f, err := archive.Open(name)
	if err != nil {
		return nil, say.Errorf("this compressed MusicXML names %q, which is not in it", name)
	}
	defer f.Close()
	data, err := io.ReadAll(io.LimitReader(f, maxUnpacked+1))
	if err != nil {
		return nil, say.Errorf("%q in this compressed MusicXML is damaged: %w", name, err)
	}
	if len(data) > maxUnpacked {
		return nil, say.Errorf("%q unpacks to more than %d MB; that is more than can be read", name, maxUnpacked>>20)
	}
	return data, nil
}

// container lists the one score of a compressed file, as MusicXML 4.0 asks.
const container = `<?xml version="1.0" encoding="UTF-8"?>
<container><rootfiles><rootfile full-path="score.musicxml" media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>
`

// Compress packs a score into a .mxl file. The same score makes the same bytes.
func Compress(score []byte) ([]byte, error) {
	var out bytes.Buffer
	archive := zip.NewWriter(&out)
	for _, f := range []struct {
		name string
		data []byte
	}{{"META-INF/container.xml", []byte(container)}, {"score.musicxml", score}} {
		w, err := archive.Create(f.name)
		if err != nil {
			return nil, err
		}
		if _, err := w.Write(f.data); err != nil {
			return nil, err
		}
	}
	err := archive.Close()
	return out.Bytes(), err
}

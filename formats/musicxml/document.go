package musicxml

import "encoding/xml"

// The parts of a file that are looked at.

type tuningXML struct {
	Line   int     `xml:"line,attr"`
	Step   string  `xml:"tuning-step"`
	Alter  float64 `xml:"tuning-alter"`
	Octave int     `xml:"tuning-octave"`
}

// entry is anything that may stand in a measure.
type entry struct {
	XMLName  xml.Name
	Duration float64 `xml:"duration"`
	// attributes
	Divisions float64 `xml:"divisions"`
	Keys      []struct {
		Fifths int    `xml:"fifths"`
		Mode   string `xml:"mode"`
	} `xml:"key"`
	Times []struct {
		Beats string `xml:"beats"`
		Type  int    `xml:"beat-type"`
	} `xml:"time"`
	Clefs []struct {
		Number int    `xml:"number,attr"`
		Sign   string `xml:"sign"`
	} `xml:"clef"`
	Details []struct {
		Tunings []tuningXML `xml:"staff-tuning"`
		Capo    int         `xml:"capo"`
	} `xml:"staff-details"`
	Transposes []struct {
		Chromatic int `xml:"chromatic"`
		Octave    int `xml:"octave-change"`
	} `xml:"transpose"`
	// harmony
	harmonyXML
	// direction and sound
	Sounds []soundXML `xml:"sound"`
	jumpXML
	// barline
	Repeat *struct {
		Direction string `xml:"direction,attr"`
		Times     int    `xml:"times,attr"`
	} `xml:"repeat"`
	Ending *struct {
		Number string `xml:"number,attr"`
		Type   string `xml:"type,attr"`
	} `xml:"ending"`
	BarSegno   []struct{} `xml:"segno"`
	BarCoda    []struct{} `xml:"coda"`
	Tempo      float64    `xml:"tempo,attr"`
	Sections   string     `xml:"direction-type>rehearsal"`
	Words      []string   `xml:"direction-type>words"`
	DrawnSegno []struct{} `xml:"direction-type>segno"`
	DrawnCoda  []struct{} `xml:"direction-type>coda"`
	Again      []struct {
		Type string `xml:"type,attr"`
		Bars int    `xml:",chardata"`
	} `xml:"measure-style>measure-repeat"`
	Metronome []struct {
		Unit   string     `xml:"beat-unit"`
		Dots   []struct{} `xml:"beat-unit-dot"`
		Minute string     `xml:"per-minute"`
	} `xml:"direction-type>metronome"`
	// print
	NewSystem string `xml:"new-system,attr"`
	NewPage   string `xml:"new-page,attr"`
	// note
	Grace *struct{} `xml:"grace"`
	Cue   *struct{} `xml:"cue"`
	Chord *struct{} `xml:"chord"`
	Rest  *struct{} `xml:"rest"`
	Pitch *struct {
		Step   string  `xml:"step"`
		Alter  float64 `xml:"alter"`
		Octave int     `xml:"octave"`
	} `xml:"pitch"`
	Ties      []typed        `xml:"tie"`
	Voice     string         `xml:"voice"`
	Head      string         `xml:"notehead"`
	Staff     int            `xml:"staff"`
	Notations []notationsXML `xml:"notations"`
	Mute      string         `xml:"play>mute"`
}

type soundXML struct {
	Tempo float64   `xml:"tempo,attr"`
	Swing *struct{} `xml:"swing"`
	jumpXML
}

// jumpXML is what a sound says of the order in which measures are played.
type jumpXML struct {
	DaCapo   string `xml:"dacapo,attr"`
	DalSegno string `xml:"dalsegno,attr"`
	Segno    string `xml:"segno,attr"`
	Coda     string `xml:"coda,attr"`
	ToCoda   string `xml:"tocoda,attr"`
	Fine     string `xml:"fine,attr"`
}

type harmonyXML struct {
	Root struct {
		Step  string  `xml:"root-step"`
		Alter float64 `xml:"root-alter"`
	} `xml:"root"`
	Kind struct {
		Text  string `xml:"text,attr"`
		Value string `xml:",chardata"`
	} `xml:"kind"`
	Bass struct {
		Step  string  `xml:"bass-step"`
		Alter float64 `xml:"bass-alter"`
	} `xml:"bass"`
	Degrees []degreeXML `xml:"degree"`
	Offset  float64     `xml:"offset"`
}

type degreeXML struct {
	Value int    `xml:"degree-value"`
	Alter int    `xml:"degree-alter"`
	Type  string `xml:"degree-type"`
}

type typed struct {
	Type string `xml:"type,attr"`
}

// ties are a note's ties as it sounds, or where it has none as it looks: some write only those.
func (e *entry) ties() []typed {
	if len(e.Ties) > 0 {
		return e.Ties
	}
	for _, n := range e.Notations {
		if len(n.Tied) > 0 {
			return n.Tied
		}
	}
	return nil
}

// notationsXML is what stands at a note, group by group.
type notationsXML struct {
	Tied          []typed `xml:"tied"`
	Slides        []typed `xml:"slide"`
	Glissandi     []typed `xml:"glissando"`
	Articulations []group `xml:"articulations"`
	Ornaments     []group `xml:"ornaments"`
	Technical     []group `xml:"technical"`
}

type group struct {
	Signs []sign `xml:",any"`
}

// sign is any element of a group of notations.
type sign struct {
	XMLName xml.Name
	Type    string    `xml:"type,attr"`
	Text    string    `xml:",chardata"`
	Step    string    `xml:"trill-step,attr"`
	Alter   float64   `xml:"bend-alter"`
	PreBend *struct{} `xml:"pre-bend"`
	Release *struct{} `xml:"release"`
}

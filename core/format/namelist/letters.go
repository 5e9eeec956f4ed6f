package namelist

import (
	"bytes"
	"strings"
	"unicode/utf8"

	"github.com/wlynxg/chardet"
	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/htmlindex"
	"golang.org/x/text/encoding/unicode"
	"golang.org/x/text/transform"

	"sectilis/core/document/card"
)

// usualLetters is what text is read by that is no Unicode and of which nothing else is sure.
const usualLetters = "windows-1252"

// sure is how sure the detection has to be, from 0 to 1, for another encoding than the usual one.
const sure = .8

// Encodings are the names of those that may be asked for, those that are met most first.
func Encodings() []string {
	return []string{usualLetters, "windows-1250", "windows-1251", "windows-1253", "windows-1254", "iso-8859-2", "koi8-r", "shift_jis", "euc-jp", "gb18030", "big5", "euc-kr", "macintosh"}
}

// decoded is text as UTF-8 and the name of the encoding that it was read by; "" for Unicode. It returns a
// *card.Refusal for an encoding that is not known, and for letters that cannot be read by it.
func decoded(raw []byte, by string) (s, is string, err error) {
	to := encoding.Encoding(unicode.UTF8)
	marked := bytes.HasPrefix(raw, []byte{0xff, 0xfe}) || bytes.HasPrefix(raw, []byte{0xfe, 0xff})
	if !marked && (by != "" || !utf8.Valid(raw)) {
		if to, is, err = lettersOf(raw, by); err != nil {
			return "", "", err
		}
	}
	out, _, err := transform.Bytes(unicode.BOMOverride(to.NewDecoder()), raw)
	if err != nil {
		return "", "", card.Refuse("file", "The letters of this file cannot be read. Save it as UTF-8.")
	}
	return string(out), is, nil
}

func lettersOf(raw []byte, by string) (encoding.Encoding, string, error) {
	if by != "" {
		e, err := htmlindex.Get(by)
		if err != nil {
			return nil, "", card.Refuse("encoding", "There are no letters of the kind “%s”.", by)
		}
		return e, strings.ToLower(by), nil
	}
	found := chardet.Detect(raw)
	if e, err := htmlindex.Get(found.Encoding); err == nil && found.Confidence >= sure {
		if s, _, err := transform.Bytes(e.NewDecoder(), raw); err == nil && !bytes.ContainsRune(s, utf8.RuneError) {
			name, err := htmlindex.Name(e)
			if err == nil && name != "utf-8" {
				return e, name, nil
			}
		}
	}
	return charmap.Windows1252, usualLetters, nil
}

package naming

import "strings"

// whole are short English words that programs are written in. They stand for
// themselves, even where a longer word begins like them (set and setup).
var whole = func() map[string]bool {
	out := map[string]bool{}
	for _, w := range strings.Fields(`
		able about above act add after age ahead all allow alone along alt and angle any app apply area array ask at atom aware away
		back bad bag bar base batch beat been begin being below bet bias bid big bill bind bit black blank block blob blue blur board body bold
		book boost boot both bound box brand break brief bring brush build bulk bump burn bus busy but buy by byte
		cache call can cap card care case cash cast catch cell chain char chart cheap check child chip chunk claim class clean clear click clip
		clock clone close cloud club coat code coin cold color come cook copy core cost count court cover crash crate cross crowd cut cycle
		dark dash data date day dead deal debug deep delay dense depth desk did die diff digit dim dirty disk do dog done door dot down draft
		drag draw drift drive drop dry due dump dust dying each early earn earth east easy eat echo edge edit eight elder empty end enemy enter
		entry equal error even event ever every exact exist exit extra eye face fact fail fair fall false fan far farm fast fault fear feed feel
		fetch few fever field fifo fifth fight file fill film final find fire first fit five fix flag flash flat fleet flip float flood floor
		flow fly focus fold folk follow font food foot for force fork form found four frame free fresh from front full fun fund fuse
		game gap gas gate gauge gear get gift girl give glass glob globe glue go goal gold good grab grade grain grand grant graph grass gray
		green grid group grow guard guess guest guide had half hand hang happy hard has hash hat have head heal heap hear heart heat heavy help
		her here hex hide high hill him hint his hit hold hole home hook hope horse host hot hour house hover how hub human icon idea idle if
		image in index inner input into invoke iron is issue it item its jail job join joint joke judge jump just keep key kick kid kill kind
		king know label lack land lane large last late later laugh law layer lay lazy lead leaf leak lean learn least leave left leg less let
		level lid life lift light like limit line link lint lion list live load loan lobby local lock log logic lone long look loop loose lose
		loss lost lot loud love low lower luck lump lunch mail main make man many map march mark mask mass mast match mate max may mean meet
		melt menu merge mesh meta meter mid might mile milk mind mine minor mint mix mock mode model moon more most mount mouse mouth move much
		mud music must mute name near neck need nest net never new news next nice night nine no node noise none noon nor north nose not note
		now null odd of off offer often oil okay old on once one only onto open or order other our out outer over own pace pack pad page
		pair palm pan panel pane paper parse part party pass past patch path pause pay peak peer pen per phase phone photo pick piece pile pin
		pipe pitch place plain plan plant plate play plot plug plus pod point poll pool poor pop port pose post pot pound power press price
		prime print prior prize probe proof prop proud prove proxy pull pulse pump pure purge push put query queue quick quiet quit quota quote
		race rack radio rail rain raise range rank rapid rate ratio raw reach react read ready real realm red reef reel reply reset rest retry
		rich ride right ring rise risk road rob rock role roll roof room root rope rough round route row rule run safe sail sale salt same sand
		save say scale scan scene scope score seal seat seed seek seem sell send sense serve set seven shade shall shape share sharp she sheet
		shell shift ship shop short shot show shut side sign since sit site six size skill skin skip sky slate sleep slice slide slim slip slot
		slow small smart smoke snap snow so soft soil sold solid solve some song sort soul sound south space spare spawn speak speed spell spend
		spin split spot stack staff stage stale stamp stand star start state stay steal step stick still stock stop store storm story strip
		study stuff style such sugar sum sun super sure swap sweep swing swipe table tag tail take talk tall tank tap tape task tax teach team
		tell ten term test text than thank that the their them then there these they thick thin thing think third this three throw thus tick
		tidy tie tile time tiny tip title to toast today toe token ton too tool top total touch tower town track trade trail train trait tray
		tree trend trial trim trip true trunk trust truth try tube tune turn twice twin two type ugly under unit until up upon upper urban use
		user usual value vast verb very via view visit vital voice void vote wait wake walk wall want war warm warn wash watch water wave way
		we weak wear web week weigh well west wheel when where which white who whole why wide will win wind wine wing wipe wire wise with woman
		wood word work world worry worst worth would wrap write wrong yard year yes yet you young your zero zone zoom`) {
		out[w] = true
	}
	return out
}()

// endings turn a word into a form of itself, which it does not shorten.
var endings = strings.Fields(
	"s es d ed r er ers ing able ion ions or ors al ly ment ness less ful ity ize ized ise ised")

// Whole reports whether a word in lower case is a short English word that
// stands for itself and shortens no other.
func Whole(word string) bool { return whole[word] }

// FormOf reports whether a longer word is only a form of a shorter one
// (limited and limit), both in lower case.
func FormOf(long, short string) bool {
	for _, e := range endings {
		if long == short+e {
			return true
		}
	}
	return false
}

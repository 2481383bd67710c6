/**
 * Words by what they do in a remark, whatever the subject: they let what is learnt from one marker's words be used for another's.
 * Written for this project; a word may stand in several lists, and the first tells its shape (`shapeOf`).
 */
const LISTS = {
  /** What is good. */
  praise:
    'good great nice nicely lovely excellent superb outstanding strong strongest impressive beautiful beautifully neat neatly sharp sharpest convincing convincingly thoughtful thoughtfully perceptive elegant elegantly admirable splendid fine fantastic wonderful wonderfully pleased pleasing pleasure delight delightful delighted smooth smoothly sound careful carefully honest honestly persuasive super brilliant brilliantly terrific marvellous magnificent gorgeous exquisite stunning stellar solid crisp clear clearly clean tidy tidily lucid vivid lively fresh original inventive creative imaginative clever smart wise insightful astute mature sensitive sensitively nuanced sophisticated subtle graceful grace fluent fluently polished professional accomplished masterly masterful expert precise precisely accurate accurately correct correctly right spot perfect perfectly flawless faultless impeccable immaculate exemplary model ideal bravo congratulations kudos hooray wow yes ha yay thanks thank thankful grateful appreciate appreciated enjoy enjoyed enjoyable enjoying love loved loving like liked admire admired impressed impresses proud happy glad moved moving funny laughed smile smiled charming engaging compelling gripping fascinating exciting promising effective effectively efficient successful successfully skilful skill skilled talent talented gift gifted ear eye instinct confident confidently brave bold courageous courage ambitious generous fair balanced thorough thoroughly complete comprehensive rigorous meticulous systematic consistent consistently coherent logical helpful useful valuable worthwhile memorable remarkable exceptional extraordinary rare refreshing inspired inspiring inspiration insight best better improved improvement improving progress leap gem gold treasure masterpiece joy star bonus magic cracking top tremendous first-rate first-class apt deft judicious sensible commendable praiseworthy worthy deserves deserve strength strengths success win wins nailed nails sings shines shine glows triumph agree agreed persuaded convinced won well vg gd exc lgtm kind kindly warm tight punchy concise economical rich deep detailed natural idiomatic musical readable reproducible humane competent safe calm alive',
  /** What is weak. */
  doubt:
    'bad badly weak weaker weakest poor poorly thin vague vaguely unclear confusing confused confuse confuses muddled muddle messy mess sloppy careless rushed hurried hasty superficial shallow simplistic naive dull boring flat bland dry lifeless repetitive redundant superfluous unnecessary irrelevant tangential digression digresses rambling ramble waffle padding filler fluff wordy long-winded overlong bloated clumsy awkward awk stilted stiff jarring jumbled disorganised disjointed choppy abrupt sudden uneven inconsistent incoherent illogical dubious doubtful questionable unconvincing unconvinced unpersuaded unsupported unsubstantiated unproven unfounded unsourced undeveloped underdeveloped unfinished unexplained undefined unexplored unresolved unbalanced one-sided biased generic general broad narrow sweeping overstated exaggerated exaggeration overblown bold cautious timid safe obvious trivial cliché clichéd tired hackneyed melodramatic sentimental preachy pompous jargon buzzwords assertion asserted assumption assumes assumed opinion anecdote anecdotal hearsay speculative speculation guess guesswork circular contradictory contradiction contradicts contradict inconsistency gap gaps hole leap jump jumps jumpy lost loses lose stumble stumbled struggle struggled trouble problem problems problematic issue issues concern concerns worry worries bothers reservation weakness weaknesses fault flaw flawed lacking lacks lack limited insufficient inadequate mere merely mostly mainly only just hardly barely scarcely rarely seldom fails fail failed misses miss missed skips ignores ignored overlooks neglects neglected drops dropped vanishes vanished disappears disappeared stops ends hidden buried hides unsure uneasy doubt doubts wonder suspect afraid unfortunately sadly alas regret pity shame disappointing disappointed unpersuasive implausible descriptive summary summarises narrative list lists dump repeats repeated repetition same twice thrice already superseded outdated dated stale odd strange weird hmm hm zzz meh adequate basic ordinary untested wishful',
  /** What is wrong. */
  error:
    "wrong wrongly error errors erroneous incorrect incorrectly mistake mistaken mistakes false falsely untrue inaccurate invalid impossible contradict contradicts mixed mixes swapped reversed inverted backwards upside mirrored miscalculated miscounted misread misreads misquoted misquote misattributed misunderstand misunderstood misunderstanding confuses confused confusion anachronism anachronistic forgot forgotten omitted omission overlooked opposite instead crash crashes fails failed failure broken leak overflow unsafe dangerous danger contraindicated illegal unlawful overruled repealed converse counterexample balance reverse doesn't isn't aren't wasn't weren't can't cannot won't",
  /** What is not there. */
  absence:
    'missing absent absence lacking lacks lack without no none nothing nobody nowhere never neither nor omitted omits unattributed uncited unreferenced unassigned unmentioned unanswered blank empty unattempted incomplete unfinished',
  /** What has to be. */
  duty: "must required requires require requirement requirements mandatory essential compulsory necessary needs need needed cannot can't forbidden prohibited allowed permitted unacceptable acceptable fail redo rewrite resubmit remove delete replace correct restart scrap unless permission consent anonymised anonymous confidentiality confidential plagiarism plagiarised copied verbatim identical deducted deduct penalty exceeded exceeds limit limits rules law policy",
  /** Spelling, punctuation, layout. */
  form: 'comma commas semicolon semicolons colon colons apostrophe apostrophes hyphen hyphens dash dashes bracket brackets parenthesis parentheses quote quotes quotation italics italic italicise bold underline underlined capital capitals capitalise capitalised uppercase lowercase caps indent indented indentation align alignment aligned font fonts typeface spacing spaces space margin margins heading headings header footer caption captions numbering numbered layout format formats formatting formatted template typo typos spelling spellings spelled spelt spell misspelt misspelled misspelling grammar grammatical tense tenses singular plural article articles contraction contractions punctuation punctuate syntax preposition prepositions pronoun pronouns adverb adverbs adjective adjectives verb verbs noun participle gerund subjunctive subject agreement word words wording phrase phrasing sentence sentences fragment run-on splice style register tone idiom idiomatic colloquial informal formal abbreviation abbreviations acronym acronyms decimal decimals digits rounding handwriting legible illegible neat tidy untidy smudge ink pen pencil ruler label labels labelled legend arrowheads arrowhead lettering linebreak whitespace brace import naming camelcase hyphenate hyphenated ampersand ellipsis ellipses alphabetical initials et al ibid sp gr ww frag r/o cap cit date dates titles names',
  /** What a piece of work is made of. */
  part: 'paragraph paragraphs para paras section sections chapter chapters introduction intro conclusion conclusions ending opening beginning abstract summary discussion method methods methodology results findings analysis evaluation literature review background title page pages line lines figure figures fig table tables graph graphs chart charts diagram diagrams map maps plot plots image images picture drawing sketch appendix bibliography references reference footnote footnotes note notes citation citations source sources quotation quote example examples evidence data argument arguments claim claims thesis hypothesis question point points idea ideas definition definitions reason reasons reasoning explanation interpretation theory concept concepts model calculation working units unit axis axes scale sample test tests proof step steps code function variable plan design detail details transition transitions structure order',
  /** What can be asked for. */
  act: 'add adds address adjust allow analyse apply argue ask attach avoid back begin break bring build calculate carry change check choose cite clarify close collect combine comment compare complete concentrate conclude connect consider convert copy correct count cover cut decide deepen define delete describe develop discuss distinguish divide draw drop elaborate eliminate emphasise end engage evaluate examine expand explain explore express extend fill find finish fix focus follow frame give go group highlight identify illustrate imagine improve include indicate insert integrate interpret introduce investigate join justify keep label lead leave let limit link list look make mark match measure mention merge move name narrow note number offer omit open order organise outline paraphrase pick place plan plot point polish prepare present prioritise proofread prove provide push put quantify quote raise reconsider recheck redo redraw reduce refer refine relate remove reorder reorganise repeat rephrase replace report research restructure rethink revise reword rewrite say separate set shorten show shrink simplify specify spell split start state stick stop strengthen structure summarise support swap tell test think tie tighten trace trim try turn unpack use vary verify weigh widen work write',
  /** How one asks. */
  wish: 'please pls kindly could can might would should ought perhaps maybe consider suggest suggestion suggestions recommend prefer want wanted wish wished hope hoped expect expected expecting',
  /** The next time. */
  later:
    'next future later forward tomorrow upcoming exam exams examination midterm midterms finals viva dissertation thesis placement portfolio career practice semester term year week month lifetime life always habit habits remember tip tips advice advise target targets goal goals onwards eventually someday again when',
  /** Where more is to be found. */
  elsewhere:
    'see cf compare lecture lectures slide slides handout handouts textbook workbook guide guides manual chapter website page notes reading library appendix leaflet poster wall chart sheet exercise exercises section consult revisit refer rubric grid criterion criteria class seminar tutorial lesson workshop office hours meeting meet monday tuesday wednesday thursday friday discussed talked covered recording audio recorded voice tape video listen message email e-mail letter overleaf attached comments comment remarks remark corrections annotations annotated margin margins marked feedback below above overall',
  /** Days and months. */
  day: 'monday tuesday wednesday thursday friday saturday sunday yesterday today january february march april may june july august september october november december',
  /** The student. */
  you: 'you your yours yourself u ur',
  /** The marker. */
  me: "i i'm i'd i've i'll me my mine myself",
  /** Negations. */
  not: "not n't don't didn't doesn't isn't wasn't aren't haven't hasn't hadn't wouldn't couldn't shouldn't won't can't cannot never nor no",
  /** Words that ask. */
  asks: 'why how what which who whom whose where when',
  /** Auxiliary verbs. */
  helps: 'do does did is are was were have has had can could will would should may might',
  /** How much. */
  degree:
    'too very so rather quite much more most less least enough little few many lot really pretty fairly slightly somewhat bit totally entirely completely',
  /** How sure. */
  seems:
    'seems seem appears appear perhaps maybe possibly probably likely suspect guess think feel believe suppose',
  /** Points and marks. */
  points: 'mark marks point points pts pt grade score scored total deducted lost off minus percent',
  /** Interest. */
  curious: 'curious wonder wondering interested interest interesting intrigued love know tell',
  /** Turns of a sentence. */
  turns: 'but though although however yet while whereas except unfortunately still nevertheless',
  /** Pointing. */
  this: 'this that these those it its here there',
  /** What was said aloud. */
  recorded:
    'recording recordings recorded record audio video tape taped voice memo sound clip file listen hear heard spoken speak aloud talked play minute minutes camera screen phone commentary',
  /** What stands in the work that came back. */
  inWork:
    'margin margins copy script scripts page pages draft pdf document doc file inline pencil pen red green yellow blue purple ink marked corrected annotated circled ringed underlined highlighted sticker stickers sticky dots dot cross crosses balloons balloon arrows wavy lines line beside between text sheet sheets typescript manuscript notebook boards plan spreadsheet cells print printout tracked edits annotations annotation comments scribbles stapled back overleaf returned attached enclosed body',
  /** Where one meets. */
  met: 'monday tuesday wednesday thursday friday tutorial tutorials seminar class lesson lecture lectures session workshop office hour hours meeting meet met talk talked discuss discussed discussion spoke speak chat bench desk board appointment call ring drop person face conference webinar week supervision show explain come bring ask break',
  /** What was sent. */
  sent: 'e-mail email e-mailed emailed mail mailed letter message messages messaged inbox post posted card postcard text texted pinged ticket forum sent wrote written send forwarded envelope parents folder channel portfolio locker rang reply',
  /** How marks were given. */
  grid: 'rubric criterion criteria grid matrix form checklist breakdown row rows level levels standard standards outcome outcomes scores scoring under split mark marks points explained',
  /** The remark on the whole. */
  whole:
    'summary overall general end bottom below above front cover covering closing final whole concluding last first top impression remarks remark comment comments note observations word',
} as const;

/** What a word does in a remark. */
export type WordTag = keyof typeof LISTS;

const TAGS = new Map<string, WordTag[]>();
for (const [tag, words] of Object.entries(LISTS))
  for (const word of words.split(' ')) TAGS.set(word, [...(TAGS.get(word) ?? []), tag as WordTag]);

/** Small words that are their own shape. */
const SMALL = new Set(
  'a an the of to in on at by for with from as and or if then than so because also even still about into over between through against before after within be been being am all any some every each other another such same own one two three first second last up down out off back again now just'.split(
    ' ',
  ),
);

/** What a word in lower case does; nothing for most words. */
export function tagsOf(word: string): readonly WordTag[] {
  return TAGS.get(word) ?? [];
}

/** A word as its first tag, as itself if it is a small one, else by its ending; marks and numbers stay. */
export function shapeOf(word: string): string {
  if (!/\p{L}/u.test(word)) return word;
  const [tag] = tagsOf(word);
  if ((tag as WordTag | undefined) !== undefined) return tag;
  if (SMALL.has(word)) return word;
  const ending = /.{2,}(ing|ed|ly|s)$/.exec(word)?.[1] ?? '';
  return `*${ending}`;
}

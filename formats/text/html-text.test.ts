import { describe, expect, it } from 'vitest';
import { textOfHtml } from './html-text.ts';

describe('the text of HTML', () => {
  it('opens every character reference', () => {
    expect(textOfHtml('Don&#8217;t &amp; won&rsquo;t: 4 &lt; 5&nbsp;mm &#x2264; caf&eacute;')).toBe(
      'Don’t & won’t: 4 < 5 mm ≤ café',
    );
  });

  it('is a line for each paragraph, and nothing of scripts and markup', () => {
    expect(
      textOfHtml(
        '<p>One <b>bold</b>\n  word.</p><ul><li>two</li><li>three<br/>four</li></ul><script>x<y</script>',
      ),
    ).toBe('One bold word.\ntwo\nthree\nfour');
    expect(textOfHtml('<body xmlns="x"><p dir="ltr"><span style="a">Why?</span></p></body>')).toBe('Why?');
    expect(textOfHtml('no markup, 3 < 4')).toBe('no markup, 3 < 4');
  });
});

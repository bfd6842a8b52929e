import { TestBed } from '@angular/core/testing';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { allMarks, markName } from '../map/marks';
import { GalleryPage } from './gallery-page';

describe('gallery', () => {
  it('shows every mark, every state and every drawing', async () => {
    TestBed.configureTestingModule({ providers: [provideFakeSession(new FakeSession())] });
    // jsdom draws no pictures: marks then have none, but their names stand.
    jest.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(null);
    jest.spyOn(HTMLCanvasElement.prototype, 'toDataURL').mockReturnValue('data:,');
    const fixture = TestBed.createComponent(GalleryPage);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const names = [...page.querySelectorAll('.mark-one small')].map((one) => one.textContent);
    expect(names).toEqual(allMarks().map(markName));
    expect(page.querySelectorAll('s-state-note')).toHaveLength(5);
    expect(page.querySelectorAll('s-drawing svg').length).toBeGreaterThanOrEqual(3);
  });
});

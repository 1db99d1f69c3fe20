import { describe, expect, it } from 'vitest';

import { PendingAddress } from './useAddress';

describe('PendingAddress', () => {
  it('keeps a change when one before it arrives, however many see that', () => {
    const way = new PendingAddress();
    way.begin('widths=letters:66');
    way.begin('widths=letters:66&reverse=1');
    way.arrive('widths=letters:66');
    way.arrive('widths=letters:66');
    expect(way.latest()).toBe('widths=letters:66&reverse=1');
    way.arrive('widths=letters:66&reverse=1');
    expect(way.latest()).toBeUndefined();
  });

  it('drops what it passed over, and everything when somebody went elsewhere', () => {
    const way = new PendingAddress();
    way.begin('a=1');
    way.begin('a=2');
    way.arrive('a=2');
    expect(way.latest()).toBeUndefined();
    way.begin('a=3');
    way.arrive('sort=grade');
    expect(way.latest()).toBeUndefined();
  });

  it('forgets what was under way when nobody looks any more', () => {
    const way = new PendingAddress();
    const [one, other] = [way.watch(), way.watch()];
    way.begin('sort=letters');
    one();
    expect(way.latest()).toBe('sort=letters');
    other();
    expect(way.latest()).toBeUndefined();
  });

  it('knows the address a page was left with, though the page had not followed it', () => {
    const way = new PendingAddress();
    const leave = way.watch();
    way.arrive('show=plot');
    way.begin('show=plot&sort=clarity');
    leave();
    expect(way.last()).toBe('show=plot&sort=clarity');
    // Back where one was before: that is where one is now.
    way.watch();
    way.arrive('show=plot');
    expect(way.last()).toBe('show=plot');
  });
});

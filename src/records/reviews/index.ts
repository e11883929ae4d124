export { keepReview, reviewList, reviewPage, reviewsOf } from './reviews'
